// Deeds that may fail, and questions of which only the newest counts: the sentence is shown, and nothing is left unhandled.
import { sentence } from './api/client';
import { toast } from './toast.svelte';

/** Where the sentence about a fault goes. */
export type Tell = (sentence: string) => void;

const atFoot: Tell = (said) => toast.show(said);

/**
 * Does something that may fail.
 *
 * @param deed What is done.
 * @param tell Takes the sentence about a fault; the line at the foot of the page where nothing is given.
 * @returns What the deed gave, or nothing where it failed.
 */
export async function attempt<T>(deed: () => Promise<T>, tell: Tell = atFoot): Promise<T | undefined> {
  try {
    return await deed();
  } catch (fault) {
    tell(sentence(fault));
    return undefined;
  }
}

/** The same for a button or an event, which waits for nothing. */
export function start(deed: () => Promise<unknown>, tell: Tell = atFoot): void {
  void attempt(deed, tell);
}

/** A question that is asked again and again; an answer that a newer question overtook is dropped. */
export class Newest {
  #asked: AbortController | null = null;

  /**
   * Asks, and has the answer taken if it is still wanted.
   *
   * @param question Asks, and stops when the signal says so.
   * @param take Takes the answer.
   * @param tell Takes the fault.
   */
  async ask<T>(
    question: (signal: AbortSignal) => Promise<T>,
    take: (answer: T) => void,
    tell: (fault: unknown) => void = (fault) => atFoot(sentence(fault)),
  ): Promise<void> {
    this.stop();
    const asked = new AbortController();
    this.#asked = asked;
    try {
      const answer = await question(asked.signal);
      if (!asked.signal.aborted) take(answer);
    } catch (fault) {
      if (!asked.signal.aborted) tell(fault);
    } finally {
      if (this.#asked === asked) this.#asked = null;
    }
  }

  /** Whether an answer is awaited. */
  get waits(): boolean {
    return this.#asked !== null;
  }

  /** No answer is wanted any more. */
  stop(): void {
    this.#asked?.abort();
    this.#asked = null;
  }
}
