// A job on the desk: what is typed, what the shop worked out from it, and whether it is saved.
//
// Every stroke asks the shop for the whole picture (the newest question wins) and is noted in this browser; a moment
// later it is saved. What cannot be saved stays noted until it can, so that closing the page loses nothing.
import { toast } from '../lib/toast.svelte';
import {
  calls,
  Refusal,
  sentence,
  type JobFile,
  type JobView,
  type PlanKey,
  type WayView,
  type WorkOut,
} from '../lib/api/client';
import { shop } from '../lib/shop.svelte';
import { JobLabel } from './label.svelte';
import { named, notes, type Note } from './notes';
import { toTyped } from './fromJob';
import { toJob, toPart } from './toJob';
import { blankPart, type Typed, type TypedPart } from './typed';

const SAVE_AFTER_MS = 450;
const MOST_SENT = 20; // names of changes that are remembered while no answer comes
const TRY_AGAIN_MS = 2500; // while the shop does not answer

export type Saved = 'saved' | 'saving' | 'typing' | 'refused' | 'away' | 'conflict';

/** What was typed over this job and is not in it yet. A change whose answer never came is known by its name. */
function noteOver(view: JobView): Note | null {
  const note = notes.find(view.id);
  const sent = [note?.sent ?? []].flat();
  if (!note || !sent.includes(view.change)) return note;
  if (note.more || sent.at(-1) !== view.change) return { ...note, revision: view.revision };
  notes.drop(view.id);
  return null;
}

export class JobDesk {
  typed = $state<Typed>() as Typed;
  work = $state.raw<WorkOut | null>(null);
  /** The last picture that had figures, for the docket while a measure is half typed. */
  figures = $state.raw<WorkOut | null>(null);
  saved = $state<Saved>('saved');
  trouble = $state('');
  restored = $state(false);
  newestRevision = $state<number | null>(null);
  /** What is looked at: a way, or of several boxes there which one; nothing while nobody picked any. */
  inHand = $state('');
  /** Whether a box is looked at at all, so that its blanks are drawn. */
  #drawn = false;
  /** The number of the part whose row was entered last. */
  chosen = $state(0);
  /** The label of this job: bought, or still asked about. */
  readonly label: JobLabel;

  readonly id: string;
  #base: JobFile;
  #revision: number;
  #asked: AbortController | null = null;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #saving: Promise<void> | null = null;
  #strokes = $state(0);
  #answered = $state(0);
  /** What was sent and not answered: any of these may be what the shop has. */
  #sent: string[] = [];

  constructor(view: JobView) {
    this.id = view.id;
    this.#base = view.job;
    this.#revision = view.revision;
    this.label = new JobLabel(this, view.label ?? null);
    const note = noteOver(view);
    // What was noted before there was such a field has it from the job.
    this.typed = { ...toTyped(view.job, shop.units), ...note?.typed };
    this.restored = note !== null;
    if (note)
      this.#base = {
        ...view.job,
        chosen: note.chosen,
        arrangement: note.arrangement ?? view.job.arrangement,
      };
    if (note === null) {
      void this.workOut();
    } else if (note.revision === view.revision) {
      this.touch();
    } else {
      // Typed over a revision that is not the newest any more: the person says which is kept.
      this.newestRevision = view.revision;
      this.saved = 'conflict';
      void this.workOut();
    }
  }

  static async open(id: string): Promise<JobDesk> {
    const [view] = await Promise.all([calls.job(id), shop.ready()]);
    return new JobDesk(view);
  }

  get job(): JobFile {
    return toJob(this.typed, this.#base);
  }

  /** The code of the kind it was begun from, if any. */
  get kind(): string {
    return this.#base.kind ?? '';
  }

  /** The part in hand. */
  get part(): TypedPart {
    const part = this.typed.parts[Math.min(this.chosen, this.typed.parts.length - 1)];
    if (!part) throw new Error('a job without a row');
    return part;
  }

  addPart(part: TypedPart = blankPart()): number {
    this.typed.parts.push(part);
    this.chosen = this.typed.parts.length - 1;
    this.touch();
    return this.chosen;
  }

  /** Takes a part off the list; gives back what puts it there again. */
  removePart(n: number): { part: TypedPart; undo: () => void } | null {
    const [part] = this.typed.parts.splice(n, 1);
    if (!part) return null;
    const filled = this.typed.parts.length === 0 ? blankPart() : null;
    if (filled) this.typed.parts.push(filled);
    this.chosen = Math.min(this.chosen, this.typed.parts.length - 1);
    this.touch();
    return {
      part,
      undo: () => {
        if (filled) this.typed.parts = this.typed.parts.filter((one) => one.key !== filled.key);
        this.typed.parts.splice(n, 0, part);
        this.touch();
      },
    };
  }

  /** A measure of a part was typed: it is this thing's own from now on, and not its kind's. */
  measured(part: TypedPart): void {
    part.guessed = false;
    this.touch();
  }

  /** Takes a step of taking apart, or leaves it: the shop says what that does to the parts. */
  async takeStep(step: string, take: boolean): Promise<() => void> {
    const before: Typed = $state.snapshot(this.typed);
    const after = toTyped(await calls.takeApart({ job: this.job, step, take }), shop.units);
    this.typed.parts = after.parts;
    this.typed.steps = after.steps;
    this.chosen = Math.min(this.chosen, this.typed.parts.length - 1);
    this.touch();
    return () => {
      this.typed.parts = before.parts;
      this.typed.steps = before.steps;
      this.touch();
    };
  }

  /** The part in hand as the shop reads it. */
  get partEntry(): ReturnType<typeof toPart> {
    return toPart(this.part);
  }

  /** The sentence about a field, or nothing. */
  problem(field: string): string {
    return this.work?.problems.find((problem) => problem.field === field)?.sentence ?? '';
  }

  read(field: string): string {
    return this.work?.measured[field] ?? '';
  }

  /** Whether the docket's figures are older than what is typed. */
  get stale(): boolean {
    return (
      this.figures?.docket.outside !== undefined &&
      this.figures?.docket.outside !== null &&
      this.work !== this.figures
    );
  }

  /** Whether the figures are of before the last stroke. */
  get awaits(): boolean {
    return this.#answered !== this.#strokes;
  }

  /** Something was typed or chosen. */
  touch(): void {
    this.#strokes += 1;
    if (this.saved !== 'conflict') this.saved = 'typing';
    this.#note(true);
    void this.workOut();
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.save(), SAVE_AFTER_MS);
  }

  async workOut(): Promise<void> {
    this.#asked?.abort();
    const asked = new AbortController();
    this.#asked = asked;
    const strokes = this.#strokes;
    try {
      const body = { job: this.job, in_hand: this.#drawn || this.inHand ? this.inHand : null };
      const work = await calls.workOut(body, asked.signal);
      this.work = work;
      this.#answered = strokes;
      if (work.docket.outside || this.figures === null) this.figures = work;
    } catch (fault) {
      if (asked.signal.aborted) return;
      this.#failed(fault);
    }
  }

  /** Has the blanks of the current box drawn. */
  draw(): void {
    if (this.#drawn) return;
    this.#drawn = true;
    void this.workOut();
  }

  /** Looks at a way: its blanks are drawn, and the docket shows it where no box is chosen yet. */
  take(way: string, item = ''): void {
    const wanted = item ? `${way}/${item}` : way;
    if (this.inHand === wanted) return;
    this.inHand = wanted;
    void this.workOut();
  }

  /** Keeps looking at a way whose board or school is changed, though another may cost less then. */
  hold(way: string): void {
    this.inHand ||= way;
  }

  /** Looks at every way there is, also those a job of old left out. */
  lookAtAll(): void {
    const every = { ...this.#base };
    delete every.ways;
    this.#base = every;
    this.touch();
  }

  /** How often something was typed or chosen. */
  get strokes(): number {
    return this.#strokes;
  }

  /** The ways to box it, cheapest in all first. */
  get ways(): WayView[] {
    return this.work?.ways ?? [];
  }

  /** The way in hand: what is looked at, or was chosen, or costs least. */
  get way(): WayView | undefined {
    return (
      this.ways.find((one) => one.way === this.inHand.split('/', 1)[0]) ??
      this.ways.find((one) => one.chosen) ??
      this.ways[0]
    );
  }

  /** Saves what is typed; strokes that come meanwhile are saved in the same breath. */
  save(): Promise<void> {
    clearTimeout(this.#timer);
    this.#saving ??= this.#saveAll().finally(() => (this.#saving = null));
    return this.#saving;
  }

  async #saveAll(): Promise<void> {
    let strokes = -1;
    while (strokes !== this.#strokes) {
      if (this.newestRevision !== null) return; // first the person says which of the two is kept
      strokes = this.#strokes;
      this.saved = 'saving';
      try {
        const name = named();
        this.#sent = [...this.#sent.slice(1 - MOST_SENT), name];
        this.#note(false);
        const change = { revision: this.#revision, job: this.job, change: name };
        this.#keep(await calls.changeJob(this.id, change));
        this.#sent = [];
      } catch (fault) {
        if (await this.#isOwn(fault)) {
          strokes = -1;
          continue;
        }
        // An answer came: that one was not made.
        if (fault instanceof Refusal && fault.status !== 0) this.#sent.pop();
        this.#failed(fault);
        return;
      }
    }
    this.saved = 'saved';
    this.trouble = '';
    this.restored = false;
    notes.drop(this.id);
  }

  /** A link to something made from what is saved: that is done first, then it is followed. */
  async follow(event: MouseEvent, what: string): Promise<void> {
    if (this.saved === 'saved') return;
    event.preventDefault();
    const link = event.currentTarget as HTMLAnchorElement;
    if (await this.settle()) link.click();
    else toast.show(`${what} is made from what is saved, and this job cannot be saved yet: see Measure.`);
  }

  /** Saves now if there is anything to save: when a room is left or a sheet is printed. */
  async settle(): Promise<boolean> {
    if (this.saved !== 'saved') await this.save();
    return this.saved === 'saved';
  }

  chooseBox(way: WayView): void {
    this.typed.board = way.board;
    if (way.schools.length > 1) this.typed.school = way.school;
    this.#base = { ...this.#base, chosen: { ...this.#base.chosen, box: this.#boxOf(way) } };
    this.touch();
  }

  /** A box as it is chosen, with the allowances it keeps: today's. */
  #boxOf(way: WayView): NonNullable<NonNullable<JobFile['chosen']>['box']> {
    const box = { way: way.way, school: way.school, board: way.board, inside_mm: way.needed_mm };
    return { ...box, item: way.item, cut_by: way.cut_by };
  }

  /** A box and a service are chosen; gives back what puts the choice as it was before. */
  keepChosen(chosen: JobFile['chosen']): () => void {
    const before = this.#base.chosen;
    this.#base = { ...this.#base, chosen };
    this.touch();
    return () => {
      this.#base = { ...this.#base, chosen: before ?? {} };
      this.touch();
    };
  }

  /** The chosen plan by its tariff of today from now on; the job kept the one it was priced by. */
  async priceByToday(plan: PlanKey): Promise<() => void> {
    const job = this.job;
    const was = job.chosen?.price;
    const today = was ? { ...job, chosen: { ...job.chosen, price: { ...was, tariff: null } } } : job;
    return this.keepChosen(await calls.choosePlan({ job: today, plan }));
  }

  /** How it was arranged, if it was. */
  get arrangement(): JobFile['arrangement'] {
    return this.#base.arrangement;
  }

  /** Everything lies so from now on; gives back what puts it as it was before. */
  keepArrangement(arrangement: JobFile['arrangement']): () => void {
    const before = this.#base.arrangement;
    this.#base = { ...this.#base, arrangement };
    this.touch();
    return () => {
      this.#base = { ...this.#base, arrangement: before };
      this.touch();
    };
  }

  /** The job becomes another, as one that was worked out from it; gives back what puts it as it was. */
  become(job: JobFile): () => void {
    const before = { base: this.#base, typed: $state.snapshot(this.typed) };
    this.#base = job;
    this.typed = toTyped(job, shop.units);
    this.chosen = Math.min(this.chosen, this.typed.parts.length - 1);
    this.touch();
    return () => {
      this.#base = before.base;
      this.typed = before.typed;
      this.chosen = Math.min(this.chosen, this.typed.parts.length - 1);
      this.touch();
    };
  }

  /** After a change in another window: this one's job goes over the newer one, which stays among its revisions. */
  async keepMine(): Promise<void> {
    if (this.newestRevision === null) return;
    this.#revision = this.newestRevision;
    this.newestRevision = null;
    await this.save();
  }

  /** This one's job becomes a job of its own; the newer one stays as it is. */
  async keepBoth(): Promise<JobView> {
    const mine = { ...this.job, title: `${this.typed.title || 'Untitled job'} (this window's)` };
    const view = await calls.addJob(mine);
    notes.drop(this.id);
    return view;
  }

  /** The job as it was becomes the newest; gives back what undoes that. */
  async bringBack(revision: number): Promise<() => void> {
    await this.settle();
    const before = this.#revision;
    await calls.jobBack(this.id, revision);
    await this.takeTheirs();
    return () => void calls.jobBack(this.id, before).then(() => this.takeTheirs());
  }

  /** Drops what this window has; the newer job is shown. */
  async takeTheirs(): Promise<void> {
    notes.drop(this.id);
    const view = await calls.job(this.id);
    this.#revision = view.revision;
    this.#base = view.job;
    this.typed = toTyped(view.job, shop.units);
    this.newestRevision = null;
    this.saved = 'saved';
    await this.workOut();
  }

  leave(): void {
    this.#asked?.abort();
    if (this.saved === 'typing') void this.save();
    else clearTimeout(this.#timer);
  }

  /** The page is looked at again: whatever waits is saved. */
  back(): void {
    if (this.saved === 'typing' || this.saved === 'away') void this.save();
  }

  /** Notes what is typed in this browser. Args: more: than was sent last. */
  #note(more: boolean): void {
    const typed = $state.snapshot(this.typed);
    const { chosen, arrangement } = this.#base;
    notes.keep(this.id, { revision: this.#revision, typed, chosen, arrangement, sent: this.#sent, more });
  }

  #keep(view: JobView): void {
    this.#revision = view.revision;
    this.label.view = view.label ?? null;
    // What was chosen meanwhile stays; all else that fields do not show comes from what was saved.
    const { chosen, arrangement } = this.#base;
    this.#base = {
      ...view.job,
      chosen: chosen ?? view.job.chosen,
      arrangement: arrangement ?? view.job.arrangement,
    };
  }

  /** Whether what was changed meanwhile is this page's own change, whose answer was lost; it goes on from there then. */
  async #isOwn(fault: unknown): Promise<boolean> {
    if (!(fault instanceof Refusal) || fault.status !== 409 || this.#sent.length < 2) return false;
    const view = await calls.job(this.id).catch(() => null);
    if (!view || !this.#sent.includes(view.change)) return false;
    this.#keep(view);
    this.#sent = [];
    return true;
  }

  #failed(fault: unknown): void {
    this.trouble = sentence(fault);
    const refusal = fault instanceof Refusal ? fault : null;
    if (refusal?.status === 409) {
      this.newestRevision = refusal.newestRevision;
      this.saved = 'conflict';
    } else {
      this.saved = refusal?.status === 0 ? 'away' : 'refused';
      if (this.saved === 'away') this.#timer = setTimeout(() => void this.save(), TRY_AGAIN_MS);
    }
  }
}
