// The label of a job: bought over the network for what is saved, or still asked about.
import { calls, Refusal, type LabelRequest, type LabelView } from '../lib/api/client';

/** What a label needs to know of its job: that it is saved. */
interface Saved {
  readonly trouble: string;
  settle: () => Promise<boolean>;
}

export class JobLabel {
  view = $state.raw<LabelView | null>(null);
  readonly #id: string;
  readonly #saved: Saved;

  constructor(id: string, saved: Saved, view: LabelView | null) {
    this.#id = id;
    this.#saved = saved;
    this.view = view;
  }

  /** Buys a label for what is saved. Throws a Refusal where none is sold. */
  async buy(body: LabelRequest): Promise<void> {
    if (!(await this.#saved.settle())) {
      const why = this.#saved.trouble || 'see Measure';
      throw new Refusal(0, `This job is not saved yet, and a label is bought for what is saved: ${why}`);
    }
    this.view = (await calls.buyLabel(this.#id, body)).label ?? null;
  }

  /** Voids the label, or the purchase that is still asked about. Throws a Refusal where the carrier will not. */
  async void(): Promise<void> {
    this.view = (await calls.voidLabel(this.#id)).label ?? null;
  }

  /** Asks the carrier at once about a label of which it is not known whether it was sold. */
  async ask(): Promise<void> {
    this.view = (await calls.askAboutLabel(this.#id)).label ?? null;
  }

  /** What the shop knows of the label by now: it asks the carrier by itself. */
  async look(): Promise<void> {
    this.view = await calls.label(this.#id);
  }
}
