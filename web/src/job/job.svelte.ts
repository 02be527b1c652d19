// A job on the desk: what is typed, and beside it what the shop works out from it, whether it is saved, its parts and
// what was decided.
import { calls, type JobFile, type JobView } from '../lib/api/client';
import { shop } from '../lib/shop.svelte';
import { Choices } from './choices.svelte';
import { toTyped } from './fromJob';
import { JobLabel } from './label.svelte';
import { Parts } from './parts.svelte';
import { noteOver, Saver } from './saver.svelte';
import { Search } from './search.svelte';
import { toJob } from './toJob';
import type { Typed } from './typed';
import { Work } from './work.svelte';

export class JobDesk {
  readonly id: string;
  typed = $state<Typed>() as Typed;
  /** The job's file, of which fields show the rest. */
  base = $state.raw<JobFile>() as JobFile;
  /** The job as it is typed. */
  readonly job: JobFile = $derived(toJob(this.typed, this.base));
  /** How often something was typed or chosen. */
  strokes = $state(0);

  readonly work: Work;
  readonly saver: Saver;
  readonly parts = new Parts(this);
  readonly choices = new Choices(this);
  readonly search = new Search(this);
  /** The label of this job: bought, or still asked about. */
  readonly label: JobLabel;

  constructor(view: JobView) {
    this.id = view.id;
    const note = noteOver(view);
    // What was noted before there was such a field has it from the job.
    this.typed = { ...toTyped(view.job, shop.units), ...note?.typed };
    const noted = { chosen: note?.chosen, arrangement: note?.arrangement ?? view.job.arrangement };
    this.base = note ? { ...view.job, ...noted } : view.job;
    this.saver = new Saver(this, view.revision);
    this.work = new Work(this, (fault) => this.saver.failed(fault));
    this.label = new JobLabel(this.id, this.saver, view.label ?? null);
    this.saver.restored = note !== null;
    if (note?.revision === view.revision) {
      this.touch();
    } else {
      if (note) this.saver.overtaken(note.revision, view.revision);
      void this.work.ask();
    }
  }

  static async open(id: string): Promise<JobDesk> {
    const [view] = await Promise.all([calls.job(id), shop.ready()]);
    const desk = new JobDesk(view);
    desk.search.resume();
    return desk;
  }

  /** The code of the kind it was begun from, if any. */
  get kind(): string {
    return this.base.kind ?? '';
  }

  /** Something was typed or chosen. */
  readonly touch = (): void => {
    this.strokes += 1;
    this.saver.soon();
    void this.work.ask();
  };

  /** The job becomes another, as one that was worked out from it; gives back what puts it as it was. */
  become(job: JobFile): () => void {
    const before = { base: this.base, typed: $state.snapshot(this.typed) };
    const put = (base: JobFile, typed: Typed): void => {
      this.base = base;
      this.typed = typed;
      this.touch();
    };
    put(job, toTyped(job, shop.units));
    return () => put(before.base, before.typed);
  }

  /** Shows a job as it is at the shop. */
  readonly show = async (view: JobView): Promise<void> => {
    this.#setOut(view.job);
    await this.work.ask();
  };

  /** Shows a job that was brought together from two windows. */
  readonly adopt = (job: JobFile): void => {
    this.#setOut(job);
    this.strokes += 1;
    void this.work.ask();
  };

  /** A job as its fields show it. */
  readonly asTyped = (job: JobFile): JobFile => toJob(toTyped(job, shop.units), job);

  /** The units that a measure typed without one gets. */
  get bare(): string[] {
    return shop.units === 'in' ? ['in', 'lb'] : ['cm', 'kg'];
  }

  #setOut(job: JobFile): void {
    const typed = toTyped(job, shop.units);
    // A row stays the row it was: whoever has the cursor in it goes on there.
    for (const [n, part] of typed.parts.entries()) part.key = this.typed.parts[n]?.key ?? part.key;
    this.base = job;
    this.typed = typed;
  }

  /** Takes over what was saved: what was chosen meanwhile stays, all else that fields do not show comes from there. */
  readonly follow = (view: JobView): void => {
    const { chosen = view.job.chosen, arrangement = view.job.arrangement } = this.base;
    this.base = { ...view.job, chosen, arrangement };
    this.label.view = view.label ?? null;
  };

  leave(): void {
    this.search.leave();
    this.work.leave();
    this.saver.leave();
  }
}
