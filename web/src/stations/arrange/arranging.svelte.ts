// Arranging a job on its screen: what is shown of it, and things moved by hand. The search itself is the job's.
import { Asked } from '../../lib/asked.svelte';
import { attempt, Newest } from '../../lib/attempt';
import {
  calls,
  sentence,
  type ArrangedView,
  type FaultView,
  type FillView,
  type IntoView,
  type Layout,
  type Placement,
  type ThingShapes,
} from '../../lib/api/client';
import { toast } from '../../lib/toast.svelte';
import type { JobDesk } from '../../job/job.svelte';
import type { Search } from '../../job/search.svelte';

type Triple = [number, number, number];
/** What a hand does with one thing. */
type Change = { thing: number; move_mm?: Triple; turn?: 0 | 1 | 2; drop?: boolean; lock?: boolean };

export class Arranging {
  /** The selected part, -1 for none. */
  chosen = $state(-1);
  /** What the thing being dragged would break where it is now. */
  felt = $state.raw<FaultView[]>([]);
  /** Whether fill is shown. */
  filled = $state(false);

  readonly search: Search;
  readonly #desk: JobDesk;
  readonly #felt = new Newest();
  readonly #shapes: Asked<ThingShapes>;
  readonly #fill: Asked<FillView>;
  readonly #boxes: Asked<IntoView[]>;

  /** Made while its screen is set up. */
  constructor(desk: JobDesk) {
    this.#desk = desk;
    this.search = desk.search;
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
      return this.filled && !this.search.searching ? (signal) => calls.fill(body(), signal) : null;
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
        this.search.takeOver(view);
      },
      (said) => (this.search.trouble = said),
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
      this.search.keep(view);
      return true;
    } catch (fault) {
      this.search.trouble = sentence(fault);
      return false;
    }
  }

  leave(): void {
    this.#felt.stop();
  }
}
