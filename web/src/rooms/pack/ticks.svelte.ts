// Ticks of packing steps. Each has a name of its own and waits in this browser until the shop has it, so that nothing
// ticked is lost while the connection drops, and two devices that were apart merge.
import { calls, sentence, type Tick } from '../../lib/api/client';
import { doneOf, tickOf } from './ticked';

const TRY_AGAIN_MS = 4000;

export class Ticks {
  known = $state<Tick[]>([]);
  waiting = $state<Tick[]>([]);
  trouble = $state('');
  readonly all = $derived([...this.known, ...this.waiting]);
  readonly done = $derived(doneOf(this.all));
  #timer: ReturnType<typeof setTimeout> | undefined;
  #sending = false;

  constructor(readonly job: string) {
    try {
      this.waiting = JSON.parse(localStorage.getItem(this.#place) ?? '[]') as Tick[];
    } catch {
      this.waiting = [];
    }
  }

  get #place(): string {
    return `fardo.ticks.${this.job}`;
  }

  tick(step: string, done: boolean, note = '', photo = ''): void {
    this.waiting = [...this.waiting, tickOf(step, done, note, photo)];
    this.#keep();
    void this.send();
  }

  /** Sends what waits; tries again a little later where the shop does not answer. */
  async send(): Promise<void> {
    clearTimeout(this.#timer);
    if (this.#sending || !this.waiting.length) return;
    this.#sending = true;
    const sent = this.waiting;
    try {
      const told = await calls.tick(this.job, sent);
      this.known = told;
      this.waiting = this.waiting.filter((one) => !sent.some(({ id }) => id === one.id));
      this.trouble = '';
      this.#keep();
    } catch (fault) {
      this.trouble = sentence(fault);
    }
    this.#sending = false;
    if (this.waiting.length)
      this.#timer = setTimeout(() => void this.send(), this.trouble ? TRY_AGAIN_MS : 0);
  }

  /** What other devices ticked meanwhile. */
  async look(): Promise<void> {
    if (this.#sending || this.waiting.length) return;
    try {
      this.known = await calls.ticks(this.job);
    } catch {
      // What is ticked next says what is wrong.
    }
  }

  stop(): void {
    clearTimeout(this.#timer);
  }

  #keep(): void {
    if (this.waiting.length) localStorage.setItem(this.#place, JSON.stringify(this.waiting));
    else localStorage.removeItem(this.#place);
  }
}
