// Readings of a tape or a scale come into the field that has the focus, where it takes that kind of measure.
import { live } from '../lib/live.svelte';
import { whenTold, type Reading } from '../lib/stream';
import { toast } from '../lib/toast.svelte';

const TAKES = { tape: 'length', scale: 'mass' } as const;

function take({ device, reading, state }: Reading): void {
  live.show(device, reading, state);
  if (state !== 'settled') return;
  const at = document.activeElement;
  if (!(at instanceof HTMLInputElement) || at.dataset.measure !== TAKES[device]) {
    const field = device === 'tape' ? 'a length' : 'a weight';
    toast.show(`The ${device} says ${reading}. Put the cursor into a field for ${field}, and read again.`);
    return;
  }
  at.value = reading;
  at.dispatchEvent(new Event('input', { bubbles: true }));
  // As if Enter had been pressed: the hand is on the tape.
  at.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }));
}

/** Takes readings until what is given back is called. */
export const listen = (): (() => void) => whenTold('reading', take);
