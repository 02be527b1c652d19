// What became of a parcel: typed, saved from a revision a moment later, and read back with what it costs now.
import { calls, Refusal, sentence, type SendingView } from './api/client';

const PAUSE_MS = 500;

export interface SendingTyped {
  weight: string;
  length: string;
  width: string;
  height: string;
  number: string;
  on: string;
  where: string;
  expected: string;
  receipts: string[];
}

const text = (value: unknown): string =>
  typeof value === 'string' || typeof value === 'number' ? String(value) : '';

/** What is kept, as its fields show it. */
function typedOf({ sending }: SendingView): SendingTyped {
  const { closed, handed_over: over } = sending;
  const sides = Array.isArray(closed?.sides) ? closed.sides.map(text) : text(closed?.sides).split(/\s+x\s+/);
  return {
    weight: text(closed?.weight),
    length: sides[0] ?? '',
    width: sides[1] ?? '',
    height: sides[2] ?? '',
    number: sending.number ?? '',
    on: over?.on ?? '',
    where: over?.where ?? '',
    expected: over?.expected ?? '',
    receipts: [...(over?.receipts ?? [])],
  };
}

export class Sending {
  readonly id: string;
  /** As the shop has it. */
  view = $state.raw<SendingView | null>(null);
  typed = $state<SendingTyped | null>(null);
  /** What is wrong with the last try to save, and with which field. */
  trouble = $state('');
  field = $state('');
  /** Whether another window changed it meanwhile: what is typed here is kept until one of both is chosen. */
  differs = $state(false);
  #timer: ReturnType<typeof setTimeout> | undefined;
  #saving: Promise<void> = Promise.resolve();
  #strokes = 0;

  constructor(id: string) {
    this.id = id;
  }

  /** Reads what is kept; what is being typed stays. */
  async load(): Promise<void> {
    const strokes = this.#strokes;
    const view = await calls.sending(this.id);
    if (strokes !== this.#strokes || this.#timer !== undefined) return;
    this.view = view;
    this.typed = typedOf(view);
    this.trouble = this.field = '';
    this.differs = false;
  }

  /** It may have been changed elsewhere: read again, unless something is typed here that is not kept yet. */
  async heard(): Promise<void> {
    if (!this.differs && !this.half && !this.trouble) await this.load();
  }

  /** Whether some of three sides are typed, but not all. */
  get half(): boolean {
    const sides = this.typed ? [this.typed.length, this.typed.width, this.typed.height] : [];
    return sides.some((side) => side.trim()) && !sides.every((side) => side.trim());
  }

  /** Something was typed: it is saved in a moment. */
  touch(): void {
    this.#strokes += 1;
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.settle(), PAUSE_MS);
  }

  /** Saves what is typed; whether all of it is saved. */
  async settle(): Promise<boolean> {
    // What was put in without a stroke, today's date by a press, is not put back by the answer to an earlier save.
    this.#strokes += 1;
    clearTimeout(this.#timer);
    this.#timer = undefined;
    this.#saving = this.#saving.then(() => this.#save());
    await this.#saving;
    return this.trouble === '' && !this.differs;
  }

  /** After another window changed it: mine over theirs, or theirs as they are. */
  async choose(mine: boolean): Promise<void> {
    const theirs = await calls.sending(this.id);
    this.view = theirs;
    this.differs = false;
    if (mine) await this.settle();
    else this.typed = typedOf(theirs);
  }

  leave(): void {
    if (this.#timer !== undefined) void this.settle();
  }

  async #save(): Promise<void> {
    const [view, typed] = [this.view, this.typed];
    if (!view || !typed || this.differs) return;
    const strokes = this.#strokes;
    const sides = [typed.length, typed.width, typed.height];
    const isClosed = typed.weight.trim() || sides.every((side) => side.trim());
    const sending = {
      closed: isClosed
        ? { weight: typed.weight, sides: sides.every((side) => side.trim()) ? sides : null }
        : null,
      number: typed.number.trim(),
      handed_over: typed.on
        ? {
            on: typed.on,
            where: typed.where,
            expected: typed.expected || null,
            receipts: [...typed.receipts],
          }
        : null,
    };
    try {
      this.view = await calls.changeSending(this.id, { revision: view.revision, sending });
      this.trouble = this.field = '';
      if (strokes === this.#strokes && !this.half) this.typed = typedOf(this.view);
    } catch (fault) {
      this.differs = fault instanceof Refusal && fault.status === 409;
      this.trouble = this.differs ? '' : sentence(fault);
      this.field = fault instanceof Refusal ? fault.field : '';
    }
  }
}
