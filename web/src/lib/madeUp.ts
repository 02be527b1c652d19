// The made-up shop, tried in this browser: everything is read anew, as nothing on the page is of the other shop.
import { start } from './attempt';
import { calls } from './api/client';

export const tryMadeUp = (): void =>
  start(async () => {
    await calls.tryMadeUp();
    location.assign('/');
  });

export const leaveMadeUp = (): void =>
  start(async () => {
    await calls.leaveMadeUp();
    location.assign('/');
  });
