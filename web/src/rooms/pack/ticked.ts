// What ticks of packing steps come to.
import type { Tick } from '../../lib/api/client';

export const TIMER = 'timer';

const newId = (): string =>
  [...crypto.getRandomValues(new Uint8Array(12))].map((one) => one.toString(16).padStart(2, '0')).join('');

// The shop and this browser write the same moment with more or fewer digits.
const inOrder = (one: Tick, other: Tick): number =>
  Date.parse(one.at) - Date.parse(other.at) || (one.id < other.id ? -1 : 1);

/** The steps that are done: of each the last tick counts, whichever device made it. */
export function doneOf(ticks: readonly Tick[]): Set<string> {
  const last = new Map<string, boolean>();
  for (const one of [...ticks].sort(inOrder)) last.set(one.step, one.done);
  return new Set([...last].filter(([, done]) => done).map(([step]) => step));
}

/** Seconds that the timer ran, up to now where it still runs. */
export function spent(ticks: readonly Tick[], now: number): number {
  let [seconds, since]: [number, number | null] = [0, null];
  for (const one of [...ticks].filter(({ step }) => step === TIMER).sort(inOrder)) {
    const at = Date.parse(one.at) / 1000;
    if (one.done) since ??= at;
    else if (since !== null) [seconds, since] = [seconds + at - since, null];
  }
  return since === null ? seconds : seconds + Math.max(now / 1000 - since, 0);
}

/** A tick of now, under a name that no other device makes up. */
export const tickOf = (step: string, done: boolean, note = '', photo = ''): Tick => ({
  id: newId(),
  step,
  done,
  at: new Date().toISOString(),
  note,
  photo,
});

/** What was written down and photographed at a step: the last note, every photograph. */
export function notedAt(ticks: readonly Tick[], step: string): { note: string; photos: string[] } {
  const own = [...ticks].filter((one) => one.step === step).sort(inOrder);
  return {
    note: own.filter((one) => one.note).at(-1)?.note ?? '',
    photos: [...new Set(own.map((one) => one.photo ?? '').filter(Boolean))],
  };
}
