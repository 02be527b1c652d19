// What the shop works out from what is typed: every stroke asks for the whole picture, and the newest question wins.
import { Newest } from '../lib/attempt';
import { calls, type JobFile, type WayView, type WorkOut } from '../lib/api/client';

/** What is worked out: a job as it is typed, and how often something in it was typed or chosen. */
interface Draft {
  readonly id: string;
  readonly job: JobFile;
  readonly strokes: number;
}

export class Work {
  /** The picture as it was answered last. */
  view = $state.raw<WorkOut | null>(null);
  /** The last picture that had figures, for the docket while a measure is half typed. */
  figures = $state.raw<WorkOut | null>(null);
  /** What is looked at: a way, or of several boxes there which one; nothing while nobody picked any. */
  inHand = $state('');
  /** Whether a box is looked at at all, so that its blanks are drawn. */
  #drawn = $state(false);
  #answered = $state(0);
  readonly #draft: Draft;
  readonly #failed: (fault: unknown) => void;
  readonly #newest = new Newest();

  constructor(draft: Draft, failed: (fault: unknown) => void) {
    this.#draft = draft;
    this.#failed = failed;
  }

  /** Whether the docket's figures are older than what is typed. */
  get stale(): boolean {
    return Boolean(this.figures?.docket.outside) && this.view !== this.figures;
  }

  /** Whether the figures are of before the last stroke. */
  get awaits(): boolean {
    return this.#answered !== this.#draft.strokes;
  }

  /** The sentence about a field, or nothing. */
  problem(field: string): string {
    return this.view?.problems.find((problem) => problem.field === field)?.sentence ?? '';
  }

  /** A field as the shop reads it, or nothing. */
  read(field: string): string {
    return this.view?.measured[field] ?? '';
  }

  /** The ways to box it, cheapest in all first. */
  get ways(): WayView[] {
    return this.view?.ways ?? [];
  }

  /** The way in hand: what is looked at, or was chosen, or costs least. */
  get way(): WayView | undefined {
    return (
      this.ways.find((one) => one.way === this.inHand.split('/', 1)[0]) ??
      this.ways.find((one) => one.chosen) ??
      this.ways[0]
    );
  }

  async ask(): Promise<void> {
    const strokes = this.#draft.strokes;
    const in_hand = this.#drawn || this.inHand ? this.inHand : null;
    const body = { job: this.#draft.job, in_hand, id: this.#draft.id };
    await this.#newest.ask(
      (signal) => calls.workOut(body, signal),
      (view) => {
        this.view = view;
        this.#answered = strokes;
        if (view.docket.outside || this.figures === null) this.figures = view;
      },
      this.#failed,
    );
  }

  /** Has the blanks of the current box drawn. */
  draw(): void {
    if (this.#drawn) return;
    this.#drawn = true;
    void this.ask();
  }

  /** Looks at a way: its blanks are drawn, and the docket shows it where no box is chosen yet. */
  take(way: string, item = ''): void {
    const wanted = item ? `${way}/${item}` : way;
    if (this.inHand === wanted) return;
    this.inHand = wanted;
    void this.ask();
  }

  /** Keeps looking at a way whose board or school is changed, though another may cost less then. */
  hold(way: string): void {
    this.inHand ||= way;
  }

  leave(): void {
    this.#newest.stop();
  }
}
