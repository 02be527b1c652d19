<script lang="ts">
  // The day's cutting: the blanks of the jobs ticked, on as few sheets as they go on, and the cuts in order.
  import RoomHead from '../../lib/ui/RoomHead.svelte';
  import { onDestroy } from 'svelte';
  import { attempt, Newest } from '../../lib/attempt';
  import { calls, sentence, type CuttingView, type ShopFile } from '../../lib/api/client';
  import { dayInWords } from '../../lib/days';
  import { follow, router } from '../../lib/router.svelte';
  import { shop } from '../../lib/shop.svelte';
  import { toast } from '../../lib/toast.svelte';
  import Measured from '../../lib/ui/Measured.svelte';

  type Tool = CuttingView['tool'];
  const TOOLS: [Tool, string][] = [
    ['straightedge', 'Straightedge'],
    ['saw', 'Saw'],
    ['knife', 'Knife, free cuts'],
  ];

  let view = $state.raw<CuttingView | null>(null);
  let tool = $state<Tool>('straightedge');
  let busy = $state(false);
  let trouble = $state('');
  const newest = new Newest();

  const toCut = $derived((view?.jobs ?? []).filter((job) => !job.cut));
  const done = $derived((view?.jobs ?? []).filter((job) => job.cut));
  // What the shop took of itself the first time: the first to leave, as many as are planned at once.
  let chosen = $state.raw<string[] | null>(null);
  const taken = $derived(toCut.map((job) => job.id).filter((id) => chosen?.includes(id)));
  const query = $derived(
    new URLSearchParams([...taken.map((id) => ['jobs', id] as [string, string]), ['tool', tool]]).toString(),
  );

  const tell = (said: string) => {
    trouble = said;
  };
  // Of which jobs and with which tool what is shown was laid out: nothing else is printed or marked as cut.
  let laidOut = $state('');
  const whole = $derived(laidOut === query);

  async function plan(): Promise<void> {
    const body = { tool, ...(chosen ? { jobs: chosen.length ? chosen : ['none'] } : {}) };
    busy = true;
    const show = (found: CuttingView): void => {
      // What is laid out already stays in sight until the next is.
      view = found.laid_out || !view ? found : { ...found, boards: view.boards };
      chosen ??= found.jobs.filter((job) => job.taken).map((job) => job.id);
      if (found.laid_out) laidOut = query;
      trouble = '';
    };
    await newest.ask(
      async (signal) => {
        if (!view) show(await calls.cutting({ ...body, lay_out: false }, signal));
        return calls.cutting(body, signal);
      },
      show,
      (fault) => tell(sentence(fault)),
    );
    busy = newest.waits;
  }
  void plan();
  onDestroy(() => newest.stop());

  /** Leaves it at what is laid out by now. */
  function stop(): void {
    newest.stop();
    busy = false;
  }

  function tick(id: string, on: boolean): void {
    chosen = on ? [...taken, id] : taken.filter((one) => one !== id);
    void plan();
  }
  function take(one: Tool): void {
    tool = one;
    void plan();
  }

  async function cut(): Promise<void> {
    if (!view) return;
    await shop.ready();
    const before = $state.snapshot(shop.view?.shop) as ShopFile;
    const { revision } = view;
    await attempt(async () => {
      const jobs = taken;
      const after = await calls.cut({ revision, jobs, tool });
      shop.view = after;
      await plan();
      toast.show('Marked as cut: the sheets are taken off the stock, the off-cuts are kept.', async () => {
        shop.view = await calls.uncut({ revision: after.revision, jobs, shop: before });
        chosen = jobs;
        await plan();
      });
    }, tell);
  }

  /** A blank was spoilt: it is cut once more, from another sheet. */
  async function cutAgain(id: string): Promise<void> {
    if (!view) return;
    const { revision } = view;
    await attempt(async () => {
      shop.view = await calls.uncut({ revision, jobs: [id], shop: null });
      chosen = [...taken, id];
      await plan();
    }, tell);
  }
</script>

<section class="room px-6 pt-4.5 pb-15">
  <RoomHead title="Cutting plan" tab="Cutting">
    <fieldset class="tools flex gap-4">
      <legend class="sr-only">Cut with</legend>
      {#each TOOLS as [name, label] (name)}
        <label class="text-soft flex items-center gap-1.5" class:on={tool === name}
          ><input
            class="accent-twine h-4.25 w-4.25 flex-none"
            type="radio"
            name="tool"
            value={name}
            checked={tool === name}
            onchange={() => take(name)}
          />{label}</label
        >
      {/each}
    </fieldset>
    <p class="ml-auto flex min-h-10 items-center gap-4.5">
      {#if taken.length && view?.boards.length && whole}
        <a class="link" href="/api/cutting.pdf?{query}" target="_blank">Print</a>
        <a class="link" href="/api/cutting.dxf?{query}" download>DXF</a>
        <button class="btn btn-main" onclick={() => void cut()} disabled={busy}>Mark as cut</button>
      {/if}
    </p>
  </RoomHead>
  <p class="says text-soft min-h-6" role="status" class:trouble={trouble !== ''}>
    {#if trouble}{trouble}{:else if busy}Laying out {taken.length || ''} jobs…
      <progress class="mx-2 w-30" aria-label="Laying out"></progress><button
        class="link"
        type="button"
        onclick={stop}>Stop</button
      >{:else if taken.length && !whole}The jobs ticked are not laid out.
      <button class="link" type="button" onclick={() => void plan()}>Lay them out</button
      >{:else if view}{taken.length}
      of {toCut.length}
      {toCut.length === 1 ? 'job' : 'jobs'}{view.more
        ? `; ${view.more} more have a box and leave later`
        : ''}{/if}
  </p>
  {#if view}
    <div class="max-narrow:grid-cols-1 grid grid-cols-[290px_minmax(0,1fr)] items-start gap-6.5">
      <fieldset class="jobs">
        <legend class="mb-1 font-semibold">What is to be cut</legend>
        {#each toCut as job (job.id)}
          <div
            class="job border-t-hair grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-2 gap-y-0.5 border-t px-0 py-2"
          >
            <label class="flex items-start gap-2.25"
              ><input
                class="accent-twine h-4.25 w-4.25 flex-none"
                type="checkbox"
                checked={taken.includes(job.id)}
                onchange={(event) => tick(job.id, event.currentTarget.checked)}
              />
              <span
                ><b>{job.title}</b><small class="text-soft text-small block"
                  >{job.box}{job.pieces
                    ? `, ${job.pieces === 1 ? 'one piece' : `${job.pieces} pieces`}`
                    : ''}{job.day ? `, leaves ${dayInWords(job.day)}` : ''}</small
                ></span
              ></label
            >
            <a class="link" href="/jobs/{job.id}/box" onclick={follow} aria-label="Look at {job.title}"
              >look</a
            >
            {#if job.why_not}<small class="trouble text-soft text-small col-span-full block"
                >{job.why_not}</small
              >{/if}
          </div>
        {:else}
          {#if done.length}<p class="text-soft text-small">Everything that was to be cut is cut.</p>{:else}<p
              class="text-soft text-small"
            >
              No job on the bench has chosen a box that is cut from sheet. Choose one at its knot Box, and its
              blanks are laid out here.
            </p>
            <button class="btn" onclick={() => router.go('/')}>To the bench</button>{/if}
        {/each}
        {#if done.length}
          <h2 class="done text-body mx-0 mt-4.5 mb-1 font-semibold">Cut already</h2>
          {#each done as job (job.id)}
            <div
              class="job border-t-hair grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-2 gap-y-0.5 border-t px-0 py-2"
            >
              <span><b>{job.title}</b><small class="text-soft text-small block">{job.box}</small></span>
              <button class="link" onclick={() => void cutAgain(job.id)} aria-label="Cut again: {job.title}"
                >Cut again</button
              >
            </div>
          {/each}
        {/if}
      </fieldset>
      <div class="boards">
        {#each view.boards as board (board.board)}
          <section aria-label="Board {board.board}">
            <h2 class="border-b-hair flex flex-wrap items-baseline gap-4 border-b">
              {board.name}
              {#if board.why_not}<span class="trouble">{board.why_not}</span>{:else}
                <span class="sum text-soft text-body font-normal"
                  ><b class="figure text-ink">{board.sheets.length}</b>
                  {board.sheets.length === 1 ? 'sheet' : 'sheets'},
                  <b class="figure text-ink">{board.waste_percent}</b>
                  % left over,
                  {#if board.free}knife only{:else}{tool === 'saw' ? 'fence' : 'straightedge'} set
                    <b class="figure text-ink">{board.fence_changes}</b> times{/if},
                  {view.currency} <b class="figure text-ink">{board.price}</b></span
                >{/if}
            </h2>
            {#each board.sheets as sheet (sheet.title)}
              <article
                class="max-desk:grid-cols-[minmax(0,1fr)] grid grid-cols-[minmax(0,1.35fr)_minmax(260px,1fr)] items-start gap-5 px-0 pt-2.5 pb-4"
              >
                <div class="drawing">
                  <!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn by our own server, its words escaped there -->
                  {@html sheet.svg}
                </div>
                <div>
                  <h3>{sheet.title}</h3>
                  <p class="text-soft text-small">{sheet.pieces.join('; ')}</p>
                  {#if sheet.cuts.length}<table class="text-note mt-1 w-full border-collapse">
                      <thead
                        ><tr
                          ><th class="text-soft font-plain text-small border-0 py-0.75 pr-2 pl-0 text-left"
                            >Cut</th
                          ><th class="text-soft font-plain text-small border-0 py-0.75 pr-2 pl-0 text-left"
                            >{tool === 'saw' ? 'Fence' : 'Mark'}, {shop.units}</th
                          ><th class="text-soft font-plain text-small border-0 py-0.75 pr-2 pl-0 text-left"
                            >Cut through</th
                          ></tr
                        ></thead
                      >
                      <tbody>
                        {#each sheet.cuts as cut, n (n)}
                          <tr class:same={!cut.new_fence}>
                            <td class="figure border-t-hair border-t py-0.75 pr-3 pl-0">{n + 1}</td>
                            <td
                              class="figure border-t-hair text-head w-24 border-t py-0.75 pr-2 pl-0 text-left"
                              >{#if cut.new_fence}<Measured text={cut.fence} />{:else}as set{/if}</td
                            >
                            <td class="border-t-hair border-t py-0.75 pr-2 pl-0 text-left"
                              ><Measured text={cut.piece} />, {cut.across
                                ? 'across its length'
                                : 'along its length'}</td
                            >
                          </tr>
                        {/each}
                      </tbody>
                    </table>{:else}<p class="text-soft text-small">
                      Free cuts: follow the drawing with a knife.
                    </p>{/if}
                  {#if sheet.keeps.length}<p class="text-note mt-1.5">
                      Kept: <Measured text={sheet.keeps.join('; ')} />
                    </p>{/if}
                </div>
              </article>
            {/each}
          </section>
        {/each}
      </div>
    </div>
  {/if}
</section>

<style>
  .tools .on {
    color: var(--ink);
    font-weight: 600;
  }

  .says.trouble,
  .trouble {
    color: var(--stop);
  }

  .drawing :global(svg) {
    width: 100%;
    height: auto;
    max-height: 420px;
    font-family: var(--font-sans);
  }
  .drawing :global(.board) {
    fill: var(--board-pale);
  }
  .drawing :global(.dimension) {
    font-family: var(--font-mono);
    font-weight: 600;
  }
  .drawing :global(.note) {
    font-weight: 600;
    paint-order: stroke;
    stroke: var(--board-pale);
    stroke-width: 0.3em;
  }

  .same td.figure {
    font-size: var(--text-small);
    font-family: inherit;
    color: var(--soft);
  }
</style>
