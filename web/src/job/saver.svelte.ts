// Whether what is typed is kept. Each change is noted in this browser at once and saved a moment later; what cannot be
// saved stays noted until it can, so that closing the page loses nothing.
import { start } from '../lib/attempt';
import { calls, Refusal, sentence, type JobFile, type JobView } from '../lib/api/client';
import type { ShopChanged } from '../lib/stream';
import { toast } from '../lib/toast.svelte';
import { differences } from '../lib/differences';
import { merge, type Merged, type Wins } from './merge';
import { named, notes, type Note } from './notes';
import type { Typed } from './typed';

const SAVE_AFTER_MS = 450;
const MOST_SENT = 20; // names of changes that are remembered while no answer comes
const TRY_AGAIN_MS = 2500; // while the shop does not answer

/** A job as it was, as another window made it, and how it is brought together with this one's. */
interface Both {
  then: JobFile;
  view: JobView;
  joined: (wins?: Wins) => Merged;
}

export type Saved = 'saved' | 'saving' | 'typing' | 'refused' | 'away' | 'conflict';

/** What is saved: a job as it is typed over a job's file. */
interface Draft {
  readonly id: string;
  readonly typed: Typed;
  readonly job: JobFile;
  readonly strokes: number;
  base: JobFile;
  /** Shows a job as it is at the shop. */
  readonly show: (view: JobView) => Promise<void>;
  /** Shows a job that was brought together from two windows; the fields stay those they were. */
  readonly adopt: (job: JobFile) => void;
  /** A job as its fields show it, without what only saving adds. */
  readonly asTyped: (job: JobFile) => JobFile;
  /** The units that a measure typed without one gets. */
  readonly bare: string[];
  /** Takes over what an answer says that fields do not show. */
  readonly follow: (view: JobView) => void;
}

/** What was typed over this job and is not in it yet. A change whose answer never came is known by its name. */
export function noteOver(view: JobView): Note | null {
  const note = notes.find(view.id);
  const sent = [note?.sent ?? []].flat();
  if (!note || !sent.includes(view.change)) return note;
  if (note.more || sent.at(-1) !== view.change) return { ...note, revision: view.revision };
  notes.drop(view.id);
  return null;
}

export class Saver {
  state = $state<Saved>('saved');
  /** The sentence about what keeps it from being saved. */
  trouble = $state('');
  /** Whether something typed before is back. */
  restored = $state(false);
  /** The revision that another window made, until the person says which is kept. */
  newestRevision = $state<number | null>(null);
  /** The fields that both windows changed; empty where what the other had is not known. */
  clashes = $state.raw<string[]>([]);

  #revision = $state(0);
  #timer: ReturnType<typeof setTimeout> | undefined;
  #saving: Promise<void> | null = null;
  /** What was sent and not answered: any of these may be what the shop has. */
  #sent: string[] = [];
  readonly #draft: Draft;

  constructor(draft: Draft, revision: number) {
    this.#draft = draft;
    this.#revision = revision;
  }

  /** Of the job as it was saved last. */
  get revision(): number {
    return this.#revision;
  }

  /** What was typed over an older revision is back: the person says which is kept. */
  overtaken(from: number, newest: number): void {
    this.#revision = from;
    this.newestRevision = newest;
    this.state = 'conflict';
    start(async () => {
      if (await this.#together()) this.soon();
    });
  }

  /** Something changed: it is noted, and saved in a moment. */
  soon(): void {
    if (this.state !== 'conflict') this.state = 'typing';
    this.#note(true);
    this.#again(SAVE_AFTER_MS);
  }

  /** Saves what is typed; strokes that come meanwhile are saved in the same breath. */
  save(): Promise<void> {
    clearTimeout(this.#timer);
    this.#saving ??= this.#saveAll().finally(() => (this.#saving = null));
    return this.#saving;
  }

  #again(after: number): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.save(), after);
  }

  async #saveAll(): Promise<void> {
    let strokes = -1;
    while (strokes !== this.#draft.strokes) {
      if (this.newestRevision !== null) return; // first the person says which of the two is kept
      strokes = this.#draft.strokes;
      this.state = 'saving';
      try {
        const name = named();
        this.#sent = [...this.#sent.slice(1 - MOST_SENT), name];
        this.#note(false);
        const change = { revision: this.#revision, job: this.#draft.job, change: name };
        this.#keep(await calls.changeJob(this.#draft.id, change));
      } catch (fault) {
        if (await this.#isOwn(fault)) {
          strokes = -1;
          continue;
        }
        if (await this.#isTogether(fault)) {
          strokes = -1;
          continue;
        }
        // An answer came: that one was not made.
        if (fault instanceof Refusal && fault.status !== 0) this.#sent.pop();
        this.failed(fault);
        return;
      }
    }
    this.state = 'saved';
    this.trouble = '';
    this.restored = false;
    notes.drop(this.#draft.id);
  }

  /** Saves now if there is anything to save: when a room is left or a sheet is printed. */
  async settle(): Promise<boolean> {
    if (this.state !== 'saved') await this.save();
    return this.state === 'saved';
  }

  /** A link to something made from what is saved: that is done first, then it is followed. */
  follow(event: MouseEvent, what: string): void {
    if (this.state === 'saved') return;
    event.preventDefault();
    const link = event.currentTarget as HTMLAnchorElement;
    start(async () => {
      if (await this.settle()) link.click();
      else toast.show(`${what} is made from what is saved, and this job cannot be saved yet: see Measure.`);
    });
  }

  /**
   * After a change in another window: of the fields that both changed this one's are kept, of all others whichever was
   * changed. Says what was replaced; the other's are a key away, and stay among the job's revisions.
   */
  async keepMine(): Promise<void> {
    if (this.newestRevision === null) return;
    const found = await this.#both();
    if (found) {
      const replaced = this.clashes.join(', ');
      const theirs = found.joined('theirs').job;
      this.#goOnFrom(found.view, found.joined('mine').job);
      toast.show(`Your version is saved over the other: ${replaced}.`, () => {
        this.#draft.adopt(theirs);
        this.soon();
      });
    } else {
      this.#revision = this.newestRevision;
      this.newestRevision = null;
    }
    await this.save();
  }

  /** This one's job becomes a job of its own; the newer one stays as it is. */
  async keepBoth(): Promise<JobView> {
    const title = `${this.#draft.typed.title || 'Untitled job'} (this window's)`;
    const view = await calls.addJob({ ...this.#draft.job, title });
    notes.drop(this.#draft.id);
    return view;
  }

  /** Drops what this window has; the newer job is shown. */
  async takeTheirs(): Promise<void> {
    notes.drop(this.#draft.id);
    const view = await calls.job(this.#draft.id);
    this.#revision = view.revision;
    this.newestRevision = null;
    this.state = 'saved';
    await this.#draft.show(view);
  }

  /** The job as it was becomes the newest; gives back what undoes that. */
  async restore(revision: number): Promise<() => void> {
    await this.settle();
    const before = this.#revision;
    const put = async (which: number): Promise<void> => {
      await calls.jobBack(this.#draft.id, which);
      await this.takeTheirs();
    };
    await put(revision);
    return () => start(() => put(before));
  }

  /** The page is left: what waits is saved. */
  leave(): void {
    if (this.state === 'typing') void this.save();
    else clearTimeout(this.#timer);
  }

  /** The page is looked at again: what waits is saved. */
  back(): void {
    if (this.state === 'typing' || this.state === 'away') void this.save();
  }

  /**
   * Another page changed something: a job that is saved here follows it. What is being typed stays; when that is saved,
   * the person says which of the two is kept.
   */
  async heard({ jobs, whole }: ShopChanged): Promise<void> {
    const one = jobs.find(({ id }) => id === this.#draft.id);
    const isNews = whole || (one && one.revision !== this.#revision && !this.#sent.includes(one.change));
    if (!isNews || this.state !== 'saved') return;
    const strokes = this.#draft.strokes;
    const view = await calls.job(this.#draft.id);
    if (view.revision === this.#revision || this.state !== 'saved' || strokes !== this.#draft.strokes) return;
    this.#revision = view.revision;
    await this.#draft.show(view);
    toast.show('This job was changed in another window; its change is shown here.');
  }

  /** Says what keeps it from being saved, and tries again by itself where the shop does not answer. */
  failed(fault: unknown): void {
    this.trouble = sentence(fault);
    const refusal = fault instanceof Refusal ? fault : null;
    if (refusal?.status === 409) {
      this.newestRevision = refusal.newestRevision;
      this.state = 'conflict';
    } else {
      this.state = refusal?.status === 0 ? 'away' : 'refused';
      if (this.state === 'away') this.#again(TRY_AGAIN_MS);
    }
  }

  /** What both windows made of the job; nothing where the revision this one began from, or the shop, is not there. */
  async #both(): Promise<Both | null> {
    try {
      const [then, view] = await Promise.all([
        calls.jobThen(this.#draft.id, this.#revision),
        calls.job(this.#draft.id),
      ]);
      const { asTyped, bare } = this.#draft;
      const joined = (wins?: Wins) => merge(asTyped(then), this.#draft.job, asTyped(view.job), bare, wins);
      return { then, view, joined };
    } catch {
      return null;
    }
  }

  /** Brings both windows' changes together where no field was changed by both. */
  async #together(): Promise<boolean> {
    const found = await this.#both();
    this.clashes = found?.joined().clashes ?? [];
    if (!found || this.clashes.length) return false;
    const mine = this.#draft.job;
    const news = differences(found.then, found.view.job, this.#draft.bare).map((one) => one.path);
    this.#goOnFrom(found.view, found.joined().job);
    if (news.length)
      toast.show(`Changed in another window, and taken over here: ${news.slice(0, 4).join(', ')}.`, () => {
        this.#draft.adopt(mine);
        this.soon();
      });
    return true;
  }

  #goOnFrom(view: JobView, job: JobFile): void {
    this.#revision = view.revision;
    this.newestRevision = null;
    this.clashes = [];
    this.#draft.adopt(job);
  }

  async #isTogether(fault: unknown): Promise<boolean> {
    return fault instanceof Refusal && fault.status === 409 && (await this.#together());
  }

  /** Notes what is typed in this browser. Args: more: than was sent last. */
  #note(more: boolean): void {
    const typed = $state.snapshot(this.#draft.typed);
    const { chosen, arrangement } = this.#draft.base;
    notes.keep(this.#draft.id, {
      revision: this.#revision,
      typed,
      chosen,
      arrangement,
      sent: this.#sent,
      more,
    });
  }

  #keep(view: JobView): void {
    this.#revision = view.revision;
    this.#sent = [];
    this.#draft.follow(view);
  }

  /** Whether what was changed meanwhile is this page's own change, whose answer was lost; it goes on from there then. */
  async #isOwn(fault: unknown): Promise<boolean> {
    if (!(fault instanceof Refusal) || fault.status !== 409 || this.#sent.length < 2) return false;
    const view = await calls.job(this.#draft.id).catch(() => null);
    if (!view || !this.#sent.includes(view.change)) return false;
    this.#keep(view);
    return true;
  }
}
