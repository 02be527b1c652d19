// The search for how a job's things lie. It goes on while other screens of the job are looked at, and is found again when
// the job is opened anew; of one job only the newest works on.
import { SvelteMap } from 'svelte/reactivity';
import { start } from '../lib/attempt';
import { calls, sentence, type ArrangedView, type JobFile, type RunView } from '../lib/api/client';
import { toast } from '../lib/toast.svelte';
import type { JobDesk } from './job.svelte';

export type Effort = 'quick' | 'normal' | 'long';

/** By job: the search that was begun and has not been seen to end, and of what it is. */
const underWay = new SvelteMap<string, { run: string; of: string }>();

/** What an arrangement is of: another of these, and it is none of the job's. */
const thingsOf = ({ parts, extras, liner, bundles, inserts, pressed }: JobFile): string =>
  JSON.stringify([parts, extras, liner, bundles, inserts, pressed]);

export class Search {
  run = $state.raw<RunView | null>(null);
  trouble = $state('');
  effort = $state<Effort>('normal');
  /** Inside of a box that is there, as typed; empty where the smallest is wanted. */
  into = $state('');

  readonly #desk: JobDesk;
  #stream: EventSource | null = null;
  #kept = '';

  constructor(desk: JobDesk) {
    this.#desk = desk;
  }

  get searching(): boolean {
    return this.run?.state === 'searching';
  }

  /** Listens again to a search that was begun before the job was left. */
  resume(): void {
    const begun = underWay.get(this.#desk.id);
    if (begun) this.#listen(begun.run, begun.of);
  }

  async begin(): Promise<void> {
    this.#drop();
    this.trouble = '';
    this.#kept = '';
    const { job } = this.#desk;
    try {
      this.run = await calls.arrange({ job, effort: this.effort, seed: 0, inside: this.into });
    } catch (fault) {
      this.trouble = sentence(fault);
      return;
    }
    underWay.set(this.#desk.id, { run: this.run.run, of: thingsOf(job) });
    this.#listen(this.run.run, thingsOf(job));
  }

  stop(): void {
    const { run } = this;
    if (run) start(() => calls.stopRun(run.run));
  }

  /** Keeps one of the answers, or what a hand made of it. */
  keep(answer: ArrangedView): void {
    const undo = this.takeOver(answer);
    toast.show('Arrangement saved.', undo);
  }

  /** The same without a word; gives back what undoes it. */
  takeOver(answer: ArrangedView): () => void {
    this.#kept = JSON.stringify(answer.entry);
    return this.#desk.choices.keepArrangement(answer.entry);
  }

  is(answer: ArrangedView): boolean {
    return JSON.stringify(answer.entry) === (this.#kept || JSON.stringify(this.#desk.choices.arrangement));
  }

  /** The job is left: the search goes on at the shop. */
  leave(): void {
    this.#stream?.close();
  }

  #listen(run: string, of: string): void {
    const before = this.#desk.choices.arrangement;
    const stream = new EventSource(`/api/arrange/${run}/stream`);
    this.#stream = stream;
    stream.onmessage = (event: MessageEvent<string>) => {
      this.run = JSON.parse(event.data) as RunView;
      const [best] = this.run.answers ?? [];
      const isOfIt = of === thingsOf(this.#desk.job);
      if (isOfIt) this.#take(best);
      if (this.searching) return;
      stream.close();
      underWay.delete(this.#desk.id);
      if (this.run.says) this.trouble = this.run.says;
      else if (!isOfIt) {
        this.run = null;
        this.trouble = 'Something was typed while it was arranged: arrange it again.';
      } else if (best?.lacks?.length) this.trouble = `It does not go in: ${best.lacks.join('; ')}.`;
      else if (best) toast.show('Arranged.', () => this.#desk.choices.keepArrangement(before));
    };
    stream.onerror = () => {
      if (stream.readyState !== EventSource.CLOSED) return;
      underWay.delete(this.#desk.id);
      if (this.searching) this.trouble = 'The shop no longer tells how far it is; the best so far is kept.';
      if (this.searching) this.run = null;
    };
  }

  /** The best so far goes into the job while the search is on. */
  #take(answer: ArrangedView | undefined): void {
    if (!answer || answer.lacks?.length) return;
    const entry = JSON.stringify(answer.entry);
    if (entry === this.#kept) return;
    this.#kept = entry;
    this.#desk.choices.keepArrangement(answer.entry);
  }

  /** An earlier search of this job is stopped: nobody waits for it any more. */
  #drop(): void {
    this.#stream?.close();
    const begun = underWay.get(this.#desk.id);
    underWay.delete(this.#desk.id);
    if (begun) start(() => calls.stopRun(begun.run));
  }
}
