// What is typed and not saved yet, noted in this browser. A browser that keeps nothing only loses this safety net.
import type { JobFile } from '../lib/api/client';
import type { Typed } from './typed';

/** What was typed and chosen, and the revision it was typed over. */
export interface Note {
  revision: number;
  typed: Typed;
  chosen: JobFile['chosen'];
  arrangement?: JobFile['arrangement'];
  /** The names of the changes that were sent and not answered, the last one last. */
  sent?: string | string[];
  /** Whether more was typed since. */
  more?: boolean;
}

// The 2 stands for parts: what was noted before there were parts is not read as if it had them.
const name = (job: string) => `fardo.typed.2.${job}`;

/** A name for a change, so that a page that never saw the answer knows it again. */
export function named(): string {
  return [...crypto.getRandomValues(new Uint8Array(12))].map((n) => n.toString(16).padStart(2, '0')).join('');
}

function trying<T>(deed: () => T, otherwise: T): T {
  try {
    return deed();
  } catch {
    return otherwise;
  }
}

export const notes = {
  keep: (job: string, note: Note) =>
    trying(() => localStorage.setItem(name(job), JSON.stringify(note)), undefined),
  drop: (job: string) => trying(() => localStorage.removeItem(name(job)), undefined),
  find: (job: string): Note | null =>
    trying(() => {
      const found: unknown = JSON.parse(localStorage.getItem(name(job)) ?? 'null');
      return found && typeof found === 'object' && 'typed' in found ? (found as Note) : null;
    }, null),
};
