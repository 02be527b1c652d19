<script lang="ts">
  // The jobs in hand, what leaves first before the rest: rows of short twine, each with its next move and its day.
  import RoomHead from '../../lib/ui/RoomHead.svelte';
  import { Asked } from '../../lib/asked.svelte';
  import { attempt, start } from '../../lib/attempt';
  import { calls, sentence, type JobRow } from '../../lib/api/client';
  import { router } from '../../lib/router.svelte';
  import { shop } from '../../lib/shop.svelte';
  import { whenTold } from '../../lib/stream';
  import { toast } from '../../lib/toast.svelte';
  import { keys } from '../../lib/keys.svelte';
  import Pick from '../../lib/ui/Pick.svelte';
  import Row from './Row.svelte';
  import { dated, groups } from './groups';
  import { practise, startJob } from './start';

  const LOOK_AGAIN_MS = 700;
  const OUTLINES = [1, 2, 3, 4, 5, 6];
  let jobs = $state<JobRow[]>([]);
  let cursor = $state<string | null>(null);
  /** Where each page that is shown begins. */
  let asked: (string | null)[] = [null];
  let loaded = $state(false);
  let renewing = $state(false);
  let trouble = $state('');
  const tell = (said: string) => {
    trouble = said;
  };
  let archived = $state(false);
  let file: HTMLInputElement;

  $effect(() => keys.add([{ key: 'n', does: 'start a job', act: () => begin() }]));

  async function load(after: string | null = null): Promise<void> {
    await attempt(async () => {
      const page = await calls.jobs({
        archived,
        today: dated(new Date()),
        ...(after ? { cursor: after } : {}),
      });
      // One that was changed meanwhile may come a second time, at its new place.
      const there = (job: JobRow) => page.jobs.some((one) => one.id === job.id);
      jobs = after ? [...jobs.filter((job) => !there(job)), ...page.jobs] : page.jobs;
      asked = after ? [...asked, after] : [null];
      cursor = page.cursor;
      renewing = page.renewing;
      trouble = '';
    }, tell);
    loaded = true;
  }

  void load();

  // What is changed from elsewhere is shown at once; new jobs and those that went are in the list then.
  $effect(() => whenTold('changed', () => start(() => again(), tell)));
  async function again(): Promise<void> {
    const pages = await pagesShown();
    const found = new Map(pages.flatMap((page) => page.jobs).map((job) => [job.id, job]));
    jobs = [...found.values()];
    cursor = pages.at(-1)?.cursor ?? null;
    renewing = pages.some((page) => page.renewing);
    trouble = '';
  }
  const pagesShown = () =>
    Promise.all(
      asked.map((after) =>
        calls.jobs({ archived, today: dated(new Date()), ...(after ? { cursor: after } : {}) }),
      ),
    );

  // Rows that are still being calculated come a moment later, each in its place.
  $effect(() => {
    if (!renewing) return;
    const timer = setTimeout(() => void renew(), LOOK_AGAIN_MS);
    return () => clearTimeout(timer);
  });
  async function renew(): Promise<void> {
    renewing = false;
    try {
      const pages = await pagesShown();
      const found = new Map(pages.flatMap((page) => page.jobs).map((job) => [job.id, job]));
      jobs = jobs.map((job) => found.get(job.id) ?? job);
      renewing = pages.some((page) => page.renewing);
    } catch {
      // The rows stay as they are; whatever is done next says what is wrong.
    }
  }

  // The list is a help: a job is started without it.
  const kinds = new Asked(() => () => calls.kinds());

  const begin = (kind: string | null = null) => start(() => startJob('', kind), tell);

  async function takeOff(job: JobRow): Promise<void> {
    try {
      await (archived ? calls.restore(job.id) : calls.archive(job.id));
    } catch (fault) {
      trouble = sentence(fault);
      return;
    }
    await load();
    const title = job.title || 'Untitled job';
    if (archived) {
      toast.show(`${title} is back on the bench.`);
      return;
    }
    toast.show(`${title} is archived.`, async () => {
      await calls.restore(job.id);
      await load();
    });
  }

  async function openFile(): Promise<void> {
    const chosen = file.files?.[0];
    if (!chosen) return;
    try {
      const bundle = chosen.name.toLowerCase().endsWith('.zip');
      const view = await (bundle ? calls.openBundle(chosen) : calls.openJobFile(await chosen.text()));
      router.go(`/jobs/${view.id}/measure`);
    } catch (fault) {
      trouble = `${chosen.name}: ${sentence(fault)}`;
    }
    file.value = '';
  }
</script>

<section class="bench mx-auto my-0 max-w-[1232px] px-6 pt-5.5 pb-20">
  <RoomHead title={archived ? 'Archive' : 'On the bench'} tab="Bench">
    {#if shop.view?.shop.name}<p class="text-soft">{shop.view.shop.name}, {shop.view.shop.town}</p>{/if}
    <div class="max-phone:ml-0 max-phone:w-full max-phone:flex-wrap ml-auto flex gap-2.5">
      <button class="btn" onclick={() => file.click()}>Import job</button>
      <input
        bind:this={file}
        type="file"
        accept=".json,.zip,application/json,application/zip"
        aria-label="Job file to import"
        class="sr-only"
        tabindex="-1"
        onchange={openFile}
      />
      <Pick
        id="start-kind"
        label="Start from a kind of goods"
        options={(kinds.answer ?? []).map((kind) => [kind.code, kind.title] as const)}
        pick={(code) => begin(code)}
      />
      <button class="btn btn-main" onclick={() => begin()}>Start a job</button>
    </div>
  </RoomHead>

  {#if trouble}<p class="trouble bg-stop-pale border-l-stop mb-3 border-l-4 px-3.5 py-2.5" role="alert">
      {trouble}
    </p>{/if}

  {#if jobs.length}
    {#each archived ? [{ title: '', jobs }] : groups(jobs, new Date()) as group (group.title)}
      {#if group.title}
        <h2 class="group mt-4 mb-1 first-of-type:mt-0" class:late={group.title === 'Late'}>
          {group.title}
          {#if group.title === 'On the way'}<a
              class="link text-note ml-3 font-normal"
              href="/api/hand-over.pdf?day={dated(new Date())}"
              target="_blank"
              rel="noopener">Hand-over list of today</a
            >{/if}
        </h2>
      {/if}
      <ul class="border-b-hair border-b" aria-label={group.title || 'Archived jobs'}>
        {#each group.jobs as job (job.id)}
          <Row {job} {archived} takeOff={() => takeOff(job)} />
        {/each}
      </ul>
    {/each}
    {#if cursor}<button class="btn mt-4" onclick={() => load(cursor)}>More jobs</button>{/if}
  {:else if !loaded}
    <div class="border-b-hair border-b" role="status" aria-label="Loading the jobs">
      {#each OUTLINES as n (n)}<div class="border-t-hair flex h-15 items-center gap-5 border-t">
          <span class="bg-hair h-2.5 w-50"></span><span class="bg-hair h-2.5 w-70"></span>
        </div>{/each}
    </div>
  {:else if loaded && !trouble}
    <div class="empty border-edge bg-sheet grid gap-2 border border-dashed px-7 py-8.5">
      {#if archived}
        <p>No job is archived. A job that you archive comes here and can be restored.</p>
      {:else}
        <p>
          <b>The bench is clear.</b> Start a job, type length, width, height and weight, and read the box and its
          price off the docket.
        </p>
        <p>Only a price? Type <span class="figure">24x12x8 9lb to 73120</span> in the line above.</p>
        <p>
          New to it? <button class="link" onclick={() => start(practise, tell)}
            >Practise on a made-up reel</button
          >: the tape, the wrap, the first cut and the price, step by step.
        </p>
      {/if}
    </div>
  {/if}

  <p class="other text-note mt-4.5">
    <button
      class="link"
      onclick={() => {
        archived = !archived;
        void load();
      }}>{archived ? 'Back to the bench' : 'Archived jobs'}</button
    >
  </p>
</section>

<style>
  .late {
    color: var(--stop);
  }
</style>
