// A tariff as it is being changed: looked over at every change, noted in this browser, kept only when it is said so.
import { Newest } from '../../lib/attempt';
import { calls, Refusal, sentence, type TariffRow } from '../../lib/api/client';
import type { JsonObject } from './schema';

const LOOK_AFTER_MS = 250;

interface Note {
  revision: number;
  file: JsonObject;
}

const noted = (carrier: string) => `fardo.tariff.1.${carrier}`;

export class TariffDraft {
  file = $state<JsonObject>({});
  revision = $state(0);
  restored = $state(false);
  problem = $state('');
  field = $state('');
  findings = $state.raw<string[]>([]);
  trouble = $state('');
  /** The newest version, where somebody kept one meanwhile. */
  newest = $state<number | null>(null);
  changed = $state(false);

  #timer: ReturnType<typeof setTimeout> | undefined;
  readonly #looking = new Newest();

  private constructor(
    readonly carrier: string,
    revision: number,
    file: JsonObject,
  ) {
    this.revision = revision;
    this.file = file;
  }

  static async open(carrier: string): Promise<TariffDraft> {
    const whole = await calls.tariff(carrier);
    const draft = new TariffDraft(carrier, whole.revision, whole.tariff);
    const note = draft.#note();
    if (note) {
      draft.file = note.file;
      draft.restored = draft.changed = true;
      if (note.revision !== whole.revision) draft.newest = whole.revision;
      draft.revision = note.revision;
    }
    void draft.lookOver();
    return draft;
  }

  /** Something was typed. */
  touch(): void {
    this.changed = true;
    try {
      const note: Note = { revision: this.revision, file: this.#plain() };
      localStorage.setItem(noted(this.carrier), JSON.stringify(note));
    } catch {
      // A browser that keeps nothing only loses this safety net.
    }
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.lookOver(), LOOK_AFTER_MS);
  }

  async lookOver(): Promise<void> {
    await this.#looking.ask(
      (signal) => calls.lookOverTariff(this.#plain(), signal),
      (told) => {
        this.problem = told.problem;
        this.field = told.field;
        this.findings = told.findings;
        this.trouble = '';
      },
      (fault) => (this.trouble = sentence(fault)),
    );
  }

  /** The tariff becomes the newest version; nothing where it is refused, which is then said. */
  async keep(): Promise<TariffRow | null> {
    try {
      const file = this.#plain();
      const row = await calls.changeTariff(this.carrier, this.revision, file);
      this.#forget();
      return row;
    } catch (fault) {
      const refusal = fault instanceof Refusal ? fault : null;
      if (refusal?.status === 409) this.newest = refusal.newestRevision;
      else this.trouble = sentence(fault);
      if (refusal?.field) this.field = refusal.field;
      return null;
    }
  }

  /** What is typed here is kept over the version that came meanwhile, which stays among the versions. */
  async keepOver(): Promise<TariffRow | null> {
    if (this.newest === null) return null;
    this.revision = this.newest;
    this.newest = null;
    return this.keep();
  }

  /** Drops what is typed; gives back what brings it again. */
  drop(): () => void {
    const note: Note = { revision: this.revision, file: this.#plain() };
    this.#forget();
    return () => localStorage.setItem(noted(this.carrier), JSON.stringify(note));
  }

  leave(): void {
    clearTimeout(this.#timer);
    this.#looking.stop();
  }

  #plain(): JsonObject {
    const kept: unknown = $state.snapshot(this.file);
    return kept as JsonObject;
  }

  #forget(): void {
    this.leave();
    this.changed = false;
    localStorage.removeItem(noted(this.carrier));
  }

  #note(): Note | null {
    try {
      const found: unknown = JSON.parse(localStorage.getItem(noted(this.carrier)) ?? 'null');
      return found && typeof found === 'object' && 'file' in found ? (found as Note) : null;
    } catch {
      return null;
    }
  }
}
