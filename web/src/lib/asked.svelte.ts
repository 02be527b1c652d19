// What the shop answers to a question that hangs on what is on the screen.
import { untrack } from 'svelte';
import { sentence } from './api/client';
import { Newest } from './attempt';

type Question<T> = (signal: AbortSignal) => Promise<T>;

/** An answer that is asked for anew whenever what its question hangs on changes. Made while a component is set up. */
export class Asked<T> {
  answer = $state.raw<T | null>(null);
  trouble = $state('');

  /**
   * @param question Reads what it hangs on, and gives back what asks; nothing where nothing is to be asked.
   * @param keep Whether the answer stays in sight while a newer one is awaited.
   */
  constructor(question: () => Question<T> | null, keep = true) {
    const newest = new Newest();
    $effect(() => {
      const asks = question();
      untrack(() => {
        if (!keep) this.answer = null;
        if (asks) void newest.ask(asks, this.#take, this.#tell);
      });
      return () => newest.stop();
    });
  }

  readonly #take = (answer: T): void => {
    this.answer = answer;
    this.trouble = '';
  };

  readonly #tell = (fault: unknown): void => {
    this.trouble = sentence(fault);
  };
}
