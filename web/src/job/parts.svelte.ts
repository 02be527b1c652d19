// The parts of a job as they are typed: which is in hand, and what adds, removes and takes them apart.
import { calls, type JobFile } from '../lib/api/client';
import { shop } from '../lib/shop.svelte';
import { toTyped } from './fromJob';
import { toPart } from './toJob';
import { blankPart, type Typed, type TypedPart } from './typed';

/** Where the parts stand. */
interface Draft {
  readonly typed: Typed;
  readonly job: JobFile;
  readonly touch: () => void;
}

export class Parts {
  /** The number of the part whose row was entered last. */
  #entered = $state(0);
  readonly #draft: Draft;

  constructor(draft: Draft) {
    this.#draft = draft;
  }

  get #rows(): TypedPart[] {
    return this.#draft.typed.parts;
  }

  /** The number of the part in hand; of those there are. */
  get chosen(): number {
    return Math.min(this.#entered, this.#rows.length - 1);
  }

  set chosen(n: number) {
    this.#entered = n;
  }

  get inHand(): TypedPart {
    const part = this.#rows[this.chosen];
    if (!part) throw new Error('a job without a row');
    return part;
  }

  /** The part in hand as the shop reads it. */
  get entry(): ReturnType<typeof toPart> {
    return toPart(this.inHand);
  }

  add(part: TypedPart = blankPart()): number {
    this.#rows.push(part);
    this.chosen = this.#rows.length - 1;
    this.#draft.touch();
    return this.chosen;
  }

  /** Takes a part off the list; gives back what puts it there again. */
  remove(n: number): { part: TypedPart; undo: () => void } | null {
    const [part] = this.#rows.splice(n, 1);
    if (!part) return null;
    const filled = this.#rows.length === 0 ? blankPart() : null;
    if (filled) this.#rows.push(filled);
    this.chosen = Math.min(this.chosen, this.#rows.length - 1);
    this.#draft.touch();
    return {
      part,
      undo: () => {
        const blank = filled ? this.#rows.findIndex((one) => one.key === filled.key) : -1;
        if (blank >= 0) this.#rows.splice(blank, 1);
        this.#rows.splice(n, 0, part);
        this.#draft.touch();
      },
    };
  }

  /** A measure of a part was typed: it is this thing's own from now on, and not its kind's. */
  measured(part: TypedPart): void {
    part.guessed = false;
    this.#draft.touch();
  }

  /** Takes a step of taking apart, or leaves it: the shop says what that does to the parts. */
  async takeStep(step: string, take: boolean): Promise<() => void> {
    const { typed } = this.#draft;
    const before: Typed = $state.snapshot(typed);
    const after = toTyped(await calls.takeApart({ job: this.#draft.job, step, take }), shop.units);
    const put = ({ parts, steps }: Pick<Typed, 'parts' | 'steps'>): void => {
      typed.parts = parts;
      typed.steps = steps;
      this.#draft.touch();
    };
    put(after);
    return () => put(before);
  }
}
