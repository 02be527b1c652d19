// What was decided about a job: its box, its service, how everything lies. Each gives back what puts it as it was.
import { calls, type JobFile, type PlanKey, type WayView } from '../lib/api/client';
import type { Typed } from './typed';

/** Where the decisions stand: in a job's file, of which fields show the rest. */
interface Draft {
  readonly typed: Typed;
  readonly job: JobFile;
  base: JobFile;
  readonly touch: () => void;
}

type Chosen = JobFile['chosen'];
type ChosenBox = NonNullable<NonNullable<Chosen>['box']>;

/** A box as it is chosen, with the allowances it keeps: today's. */
function boxOf(way: WayView): ChosenBox {
  const box = { way: way.way, school: way.school, board: way.board, inside_mm: way.needed_mm };
  return { ...box, item: way.item, cut_by: way.cut_by };
}

export class Choices {
  readonly #draft: Draft;

  constructor(draft: Draft) {
    this.#draft = draft;
  }

  #put(change: Partial<JobFile>): () => void {
    const before = this.#draft.base;
    const was = Object.fromEntries(Object.keys(change).map((key) => [key, before[key as keyof JobFile]]));
    this.#draft.base = { ...before, ...change };
    this.#draft.touch();
    return () => {
      this.#draft.base = { ...this.#draft.base, ...was };
      this.#draft.touch();
    };
  }

  chooseBox(way: WayView): void {
    // A box that is there is of the board it is of; what is cut instead stays of the board it was.
    if (!way.item) this.#draft.typed.board = way.board;
    if (way.schools.length > 1) this.#draft.typed.school = way.school;
    this.#put({ chosen: { ...this.#draft.base.chosen, box: boxOf(way) } });
  }

  /** A box and a service are chosen. */
  keepChosen(chosen: Chosen): () => void {
    return this.#put({ chosen: chosen ?? {} });
  }

  /** The chosen plan by its tariff of today from now on; the job kept the one it was priced by. */
  async priceByToday(plan: PlanKey): Promise<() => void> {
    const { job } = this.#draft;
    const was = job.chosen?.price;
    const today = was ? { ...job, chosen: { ...job.chosen, price: { ...was, tariff: null } } } : job;
    return this.keepChosen(await calls.choosePlan({ job: today, plan }));
  }

  /** How it was arranged, if it was. */
  get arrangement(): JobFile['arrangement'] {
    return this.#draft.base.arrangement;
  }

  /** Everything lies so from now on. */
  keepArrangement(arrangement: JobFile['arrangement']): () => void {
    return this.#put({ arrangement });
  }

  /** Looks at every way there is, also those a job of old left out. */
  lookAtAll(): void {
    const every = { ...this.#draft.base };
    delete every.ways;
    this.#draft.base = every;
    this.#draft.touch();
  }
}
