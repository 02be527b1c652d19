// Arranging a job: the search that runs at the shop, the answers it came to, and things moved by hand.
import { Asked } from '../../lib/asked.svelte';
import { attempt, Newest, start } from '../../lib/attempt';
import {
  calls,
  sentence,
  type ArrangedView,
  type FaultView,
  type FillView,
  type IntoView,
  type Layout,
  type Placement,
  type RunView,
  type ThingShapes,
} from '../../lib/api/client';
import { toast } from '../../lib/toast.svelte';
import type { JobDesk } from '../../job/job.svelte';

export type Effort = 'quick' | 'normal' | 'long';
type Triple = [number, number, number];
/** What a hand does with one thing. */
type Change = { thing: number; move_mm?: Triple; turn?: 0 | 1 | 2; drop?: boolean; lock?: boolean };

export class Arranging {
  run = $state.raw<RunView | null>(null);
  trouble = $state('');
  /** The selected part, -1 for none. */
  chosen = $state(-1);
  /** What the thing being dragged would break where it is now. */
  felt = $state.raw<FaultView[]>([]);
  effort = $state<Effort>('normal');
  /** Inside of a box that is there, as typed; empty where the smallest is wanted. */
  into = $state('');
  /** Whether fill is shown. */
  filled = $state(false);

  readonly #desk: JobDesk;
  #stream: EventSource | null = null;
  readonly #felt = new Newest();
  readonly #shapes: Asked<ThingShapes>;
  readonly #fill: Asked<FillView>;
  readonly #boxes: Asked<IntoView[]>;
  #kept = '';

  /** Made while its screen is set up. */
  constructor(desk: JobDesk) {
    this.#desk = desk;
    const body = () => ({ job: desk.job });
    // What things look like changes with their shapes only, where fill goes and which boxes take them with how they lie.
    const look = $derived(
      JSON.stringify([desk.job.parts?.map((p) => [p.shape, p.count, p.piles, p.protect]), desk.job.extras]),
    );
    this.#shapes = new Asked(() => {
      void look;
      return (signal) => calls.things(body(), signal);
    });
    this.#fill = new Asked(() => {
      void this.layout;
      return this.filled && !this.searching ? (signal) => calls.fill(body(), signal) : null;
    });
    this.#boxes = new Asked(() => {
      void this.layout;
      return (signal) => calls.packInto(body(), signal);
    });
  }

  /** What everything looks like. */
  get shapes(): ThingShapes | null {
    return this.#shapes.answer;
  }

  /** Where there is room for fill, while it is shown. */
  get fill(): FillView | null {
    return this.filled ? this.#fill.answer : null;
  }

  /** The boxes there, those that take the goods as they lie first. */
  get boxes(): IntoView[] {
    return this.#boxes.answer ?? [];
  }

  get searching(): boolean {
    return this.run?.state === 'searching';
  }

  /** Where things lie as they are kept, or as they would side by side. */
  get layout(): Layout | null {
    return this.#desk.work.view?.layout ?? this.#desk.work.figures?.layout ?? null;
  }

  get things(): Placement[] {
    const layout = this.layout;
    return layout ? [...layout.parts, ...layout.extras].sort((a, b) => a.goes_in - b.goes_in) : [];
  }

  get wrong(): number[] {
    return this.felt.flatMap((one) => (one.other === null ? [one.thing] : [one.thing, one.other]));
  }

  async begin(): Promise<void> {
    this.leave();
    this.trouble = '';
    this.#kept = '';
    try {
      this.run = await calls.arrange({
        job: this.#desk.job,
        effort: this.effort,
        seed: 0,
        inside: this.into,
      });
    } catch (fault) {
      this.trouble = sentence(fault);
      return;
    }
    const before = this.#desk.choices.arrangement;
    const stream = new EventSource(`/api/arrange/${this.run.run}/stream`);
    this.#stream = stream;
    stream.onmessage = (event: MessageEvent<string>) => {
      this.run = JSON.parse(event.data) as RunView;
      const [best] = this.run.answers ?? [];
      this.#take(best);
      if (this.run.state === 'searching') return;
      stream.close();
      if (this.run.says) this.trouble = this.run.says;
      else if (best?.lacks?.length) this.trouble = `It does not go in: ${best.lacks.join('; ')}.`;
      else if (best) toast.show('Arranged.', () => this.#desk.choices.keepArrangement(before));
    };
    stream.onerror = () => {
      if (stream.readyState === EventSource.CLOSED && this.searching) {
        this.trouble = 'The shop no longer tells how far it is; the best so far is kept.';
        this.run = null;
      }
    };
  }

  stop(): void {
    const { run } = this;
    if (run) start(() => calls.stopRun(run.run));
  }

  /** Keeps one of the answers. */
  keep(answer: ArrangedView): void {
    this.#kept = JSON.stringify(answer.entry);
    const undo = this.#desk.choices.keepArrangement(answer.entry);
    toast.show('Arrangement saved.', undo);
  }

  is(answer: ArrangedView): boolean {
    return JSON.stringify(answer.entry) === (this.#kept || JSON.stringify(this.#desk.choices.arrangement));
  }

  /** The best so far goes into the job while the search is on. */
  #take(answer: ArrangedView | undefined): void {
    if (!answer || answer.lacks?.length) return;
    const entry = JSON.stringify(answer.entry);
    if (entry === this.#kept) return;
    this.#kept = entry;
    this.#desk.choices.keepArrangement(answer.entry);
  }

  /** Tries a thing elsewhere; what breaks a gap is shown and not kept. Gives back whether it was kept. */
  async move(thing: number, by: Triple, drop = false): Promise<boolean> {
    return this.#try({ thing, move_mm: by, drop });
  }

  /** Turns a thing by a quarter about an axis, around its own middle. */
  async turn(thing: number, about: 0 | 1 | 2): Promise<boolean> {
    return this.#try({ thing, turn: about });
  }

  async lock(thing: number): Promise<void> {
    const before = this.things.find((placed) => placed.thing === thing)?.locked ?? false;
    await attempt(
      async () => {
        const view = await this.#byHand({ thing, lock: !before });
        this.#kept = JSON.stringify(view.entry);
        this.#desk.choices.keepArrangement(view.entry);
      },
      (said) => (this.trouble = said),
    );
  }

  /** While it is dragged: what it would come too near. */
  async feel(thing: number, by: Triple): Promise<void> {
    await this.#felt.ask(
      (signal) => this.#byHand({ thing, move_mm: by }, signal),
      (view) => (this.felt = view.faults),
      () => undefined, // the shop is away: the drop will tell
    );
  }

  #byHand(change: Change, signal?: AbortSignal): Promise<ArrangedView> {
    const still = { move_mm: [0, 0, 0] as Triple, drop: false };
    return calls.byHand({ ...still, ...change, job: this.#desk.job }, signal);
  }

  async #try(change: Change): Promise<boolean> {
    this.#felt.stop();
    this.felt = [];
    try {
      const view = await this.#byHand(change);
      if (view.faults.length > 0) {
        toast.show(`Put back: ${view.faults[0]?.says ?? ''}.`);
        return false;
      }
      this.keep(view);
      return true;
    } catch (fault) {
      this.trouble = sentence(fault);
      return false;
    }
  }

  leave(): void {
    this.#stream?.close();
    this.#felt.stop();
  }
}
