<script lang="ts">
  // The day's cutting: the blanks of the jobs ticked, on as few sheets as they go on, and the cuts in order.
  import { attempt, Newest } from '../../lib/attempt';
  import { calls, sentence, type CuttingView, type ShopFile } from '../../lib/api/client';
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

  const LOOK_AGAIN_MS = 900;
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
  async function plan(): Promise<void> {
    const body = { tool, ...(chosen ? { jobs: chosen.length ? chosen : ['none'] } : {}) };
    busy = true;
    await newest.ask(
      (signal) => calls.cutting(body, signal),
      (found) => {
        view = found;
        // While jobs are still being calculated the shop goes on taking what it can.
        if (!found.renewing) chosen ??= found.jobs.filter((job) => job.taken).map((job) => job.id);
        trouble = '';
      },
      (fault) => tell(sentence(fault)),
    );
    busy = newest.waits;
  }
  void plan();
  $effect(() => {
    if (!view?.renewing) return;
    const timer = setTimeout(() => void plan(), LOOK_AGAIN_MS);
    return () => clearTimeout(timer);
  });

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

<svelte:head><title>Cutting · Fardo</title></svelte:head>

<section class="room">
  <div class="head">
    <h1>Cutting plan</h1>
    <fieldset class="tools">
      <legend class="sr-only">Cut with</legend>
      {#each TOOLS as [name, label] (name)}
        <label class:on={tool === name}
          ><input
            type="radio"
            name="tool"
            value={name}
            checked={tool === name}
            onchange={() => take(name)}
          />{label}</label
        >
      {/each}
    </fieldset>
    <p class="prints">
      {#if taken.length && view?.boards.length}
        <a class="link" href="/api/cutting.pdf?{query}" target="_blank">Print</a>
        <a class="link" href="/api/cutting.dxf?{query}" download>DXF</a>
        <button class="btn btn-main" onclick={() => void cut()} disabled={busy}>Mark as cut</button>
      {/if}
    </p>
  </div>
  <p class="says" role="status" class:trouble={trouble !== ''}>
    {#if trouble}{trouble}{:else if busy}Laying out…{:else if view}{taken.length}
      of {toCut.length} jobs{view.more ? `; ${view.more} more have a box and leave later` : ''}{view.renewing
        ? '; others are being calculated'
        : ''}{/if}
  </p>
  {#if view}
    <div class="cols">
      <fieldset class="jobs">
        <legend>What is to be cut</legend>
        {#each toCut as job (job.id)}
          <div class="job">
            <label
              ><input
                type="checkbox"
                checked={taken.includes(job.id)}
                onchange={(event) => tick(job.id, event.currentTarget.checked)}
              />
              <span
                ><b>{job.title}</b><small
                  >{job.box}, {job.pieces === 1 ? 'one piece' : `${job.pieces} pieces`}{job.day
                    ? `, leaves ${job.day}`
                    : ''}</small
                ></span
              ></label
            >
            {#if job.why_not}<small class="trouble">{job.why_not}</small>{/if}
            <a class="link" href="/jobs/{job.id}/box" onclick={follow} aria-label="Look at {job.title}"
              >look</a
            >
          </div>
        {:else}
          {#if done.length}<p class="soft">Everything that was to be cut is cut.</p>{:else}<p class="soft">
              No job on the bench has chosen a box that is cut from sheet. Choose one at its knot Box, and its
              blanks are laid out here.
            </p>
            <button class="btn" onclick={() => router.go('/')}>To the bench</button>{/if}
        {/each}
        {#if done.length}
          <h2 class="done">Cut already</h2>
          {#each done as job (job.id)}
            <div class="job">
              <span><b>{job.title}</b><small>{job.box}</small></span>
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
            <h2>
              {board.name}
              {#if board.why_not}<span class="trouble">{board.why_not}</span>{:else}
                <span class="sum"
                  ><b class="figure">{board.sheets.length}</b>
                  {board.sheets.length === 1 ? 'sheet' : 'sheets'},
                  <b class="figure">{board.waste_percent}</b>
                  % over,
                  {#if board.free}knife only{:else}{tool === 'saw' ? 'fence' : 'straightedge'} set
                    <b class="figure">{board.fence_changes}</b> times{/if},
                  {view.currency} <b class="figure">{board.price}</b></span
                >{/if}
            </h2>
            {#each board.sheets as sheet (sheet.title)}
              <article>
                <div class="drawing">
                  <!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn by our own server, its words escaped there -->
                  {@html sheet.svg}
                </div>
                <div>
                  <h3>{sheet.title}</h3>
                  <p class="soft">{sheet.pieces.join('; ')}</p>
                  {#if sheet.cuts.length}<table>
                      <thead
                        ><tr
                          ><th>{tool === 'saw' ? 'Fence' : 'Mark'}, {shop.units}</th><th>Cut through</th></tr
                        ></thead
                      >
                      <tbody>
                        {#each sheet.cuts as cut, n (n)}
                          <tr class:same={!cut.new_fence}>
                            <td class="figure"
                              >{#if cut.new_fence}<Measured text={cut.fence} />{:else}as set{/if}</td
                            >
                            <td
                              ><Measured text={cut.piece} />, {cut.across
                                ? 'across its length'
                                : 'along its length'}</td
                            >
                          </tr>
                        {/each}
                      </tbody>
                    </table>{:else}<p class="soft">Free cuts: follow the drawing with a knife.</p>{/if}
                  {#if sheet.keeps.length}<p class="keeps">
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
  .room {
    padding: 18px 24px 60px;
  }
  .head {
    display: flex;
    gap: 26px;
    align-items: center;
    flex-wrap: wrap;
  }
  .tools {
    display: flex;
    gap: 16px;
  }
  .tools label {
    display: flex;
    gap: 6px;
    align-items: center;
    color: var(--soft);
  }
  .tools .on {
    color: var(--ink);
    font-weight: 600;
  }
  input {
    accent-color: var(--twine);
    width: 17px;
    height: 17px;
    flex: none;
  }
  .prints {
    margin-left: auto;
    display: flex;
    gap: 18px;
    align-items: center;
    min-height: 40px;
  }
  .says {
    color: var(--soft);
    min-height: 24px;
  }
  .says.trouble,
  .trouble {
    color: var(--stop);
  }
  .cols {
    display: grid;
    grid-template-columns: 290px minmax(0, 1fr);
    gap: 26px;
    align-items: start;
  }
  .jobs legend {
    font-weight: 600;
    margin-bottom: 4px;
  }
  .job {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 2px 8px;
    border-top: 1px solid var(--hair);
    padding: 8px 0;
    align-items: baseline;
  }
  .job label {
    display: flex;
    gap: 9px;
    align-items: start;
  }
  .done {
    font-size: 15px;
    font-weight: 600;
    margin: 18px 0 4px;
  }
  .job small {
    display: block;
  }
  small,
  .soft {
    font-size: 13.5px;
    color: var(--soft);
  }
  .boards h2 {
    display: flex;
    gap: 16px;
    align-items: baseline;
    flex-wrap: wrap;
    border-bottom: 1px solid var(--hair);
  }
  .sum {
    font-size: 15px;
    font-weight: 400;
    color: var(--soft);
  }
  .sum b {
    color: var(--ink);
  }
  article {
    display: grid;
    grid-template-columns: minmax(0, 1.35fr) minmax(260px, 1fr);
    gap: 20px;
    padding: 10px 0 16px;
    align-items: start;
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
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 14.5px;
    margin-top: 4px;
  }
  td,
  th {
    padding: 3px 8px 3px 0;
    border-top: 1px solid var(--hair);
    text-align: left;
  }
  thead th {
    border: 0;
    font-size: 13px;
    color: var(--soft);
    font-weight: 450;
  }
  td.figure {
    font-size: 19px;
    width: 96px;
  }
  .same td.figure {
    font-size: 13.5px;
    font-family: inherit;
    color: var(--soft);
  }
  .keeps {
    margin-top: 6px;
    font-size: 14px;
  }
  @media (max-width: 1100px) {
    article {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
