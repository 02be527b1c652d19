<script lang="ts">
  // Arrange: everything in its own shape in the box, found by the engine or moved by hand, stepped through as it is packed.
  import { onDestroy, untrack } from 'svelte';
  import type { JobDesk } from '../../job/job.svelte';
  import NotYet from '../../job/NotYet.svelte';
  import Measured from '../../lib/ui/Measured.svelte';
  import type { Side } from '../../lib/view3d/packed';
  import { Arranging, type Effort } from './arranging.svelte';
  import FillPlan from './FillPlan.svelte';
  import HandBar from './HandBar.svelte';
  import IntoBoxes from './IntoBoxes.svelte';
  import PackedBox from './PackedBox.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const arranging = new Arranging(untrack(() => desk));
  onDestroy(() => arranging.leave());

  const SIDES: [Side, string][] = [
    ['corner', 'corner'],
    ['above', 'plan'],
    ['front', 'front'],
    ['right', 'side'],
  ];
  const EFFORTS: [Effort, string][] = [
    ['quick', 'quick'],
    ['normal', 'normal'],
    ['long', 'long'],
  ];
  const SHAPES = { cube: 'compact', flat: 'flat', long: 'long' } as const;

  let packed = $state<PackedBox>();
  let apart = $state(0);
  let wrapped = $state(false);
  /** How many are in, nothing while all of them are. */
  let stepped = $state<number | null>(null);

  const things = $derived(arranging.things);
  const count = $derived(things.length);
  const shown = $derived(Math.min(stepped ?? count, count));
  const last = $derived(stepped === null ? undefined : things[shown - 1]);
  const knot = $derived(desk.work.view?.knots.find((one) => one.name === 'arrange'));
  const complaint = $derived(arranging.trouble || (arranging.felt[0]?.says ?? ''));
  const answers = $derived(arranging.run?.answers ?? []);
  // What is thinner than a line is drawn as one.
  const board = $derived(Math.max(desk.work.way?.wall_mm ?? 4, 1.5));
</script>

{#if arranging.layout && desk.work.view}
  <div class="station">
    <section aria-label="The packed box">
      <div class="bar">
        <button
          class="btn btn-main"
          disabled={arranging.searching || count < 2}
          onclick={() => arranging.begin()}
        >
          {knot?.state === 'tied' ? 'Arrange again' : 'Arrange'}
        </button>
        <label>
          <span>Effort</span>
          <select class="field" bind:value={arranging.effort} disabled={arranging.searching}>
            {#each EFFORTS as [effort, word] (effort)}<option value={effort}>{word}</option>{/each}
          </select>
        </label>
        <label>
          <span>Fit into</span>
          <input
            class="field into"
            bind:value={arranging.into}
            disabled={arranging.searching}
            placeholder="lowest cost"
            title="The inside of a box you have, as 24 x 18 x 12; empty for the smallest"
            autocomplete="off"
          />
        </label>
        {#if arranging.searching && arranging.run}
          <progress max={arranging.run.of} value={arranging.run.done} aria-label="How far the search is"
          ></progress>
          <button class="btn" onclick={() => arranging.stop()}>Stop, keep the best</button>
        {:else}
          <span class="says">{knot?.says}</span>
        {/if}
      </div>
      <div class="picture">
        <PackedBox bind:this={packed} {arranging} {board} step={shown} {apart} {wrapped} />
        <span class="sides" role="group" aria-label="Look from">
          {#each SIDES as [side, word] (side)}
            <button class="link" onclick={() => packed?.look(side)}>{word}</button>
          {/each}
        </span>
        <a
          class="link print"
          href="/api/jobs/{desk.id}/packing.pdf"
          target="_blank"
          onclick={(event) => desk.saver.follow(event, 'A drawing')}>Print</a
        >
        <p class="no" class:quiet={!complaint} role="alert">{complaint}</p>
      </div>
      <div class="steps">
        <label class="slide">
          <span>Show up to step</span>
          <input
            type="range"
            min="0"
            max={count}
            value={shown}
            oninput={(event) => (stepped = Number(event.currentTarget.value))}
            aria-label="Step of packing"
          />
        </label>
        <span class="step">
          {#if last}{shown} of {count}: <b>{last.name}</b> goes in, straight down{:else if shown}all {count} in{:else}an
            empty box{/if}
        </span>
        <label class="slide short">
          <span>Spread</span>
          <input type="range" min="0" max="1" step="0.05" bind:value={apart} aria-label="Lifted apart" />
        </label>
        <label class="tick"><input type="checkbox" bind:checked={wrapped} /> Wrap</label>
        <label class="tick"><input type="checkbox" bind:checked={arranging.filled} /> Fill</label>
      </div>
      <HandBar {arranging} />
      <FillPlan {desk} />
    </section>

    <aside>
      <h2>Inside size needed</h2>
      {#if desk.work.view.inside}
        <p class="inside figure"><Measured text={desk.work.view.inside.figure.text} /></p>
      {/if}
      <IntoBoxes {arranging} />
      {#if answers.length}
        <h2>Arrangements, lowest total first</h2>
        <ul class="answers">
          {#each answers as answer (answer.inside.mm.join())}
            <li>
              <button
                class="answer"
                aria-pressed={arranging.is(answer)}
                disabled={Boolean(answer.lacks?.length)}
                onclick={() => arranging.keep(answer)}
              >
                <span class="words">{SHAPES[answer.proportion]}</span>
                <span class="figure size"><Measured text={answer.inside.figure.text} /></span>
                <span class="figure money">{answer.total ?? ''}</span>
                {#if answer.by}<span class="less">{answer.by}</span>{/if}
                <span class="less">
                  {#if answer.lacks?.length}does not go in{:else}{answer.saves_percent > 0
                      ? `${answer.saves_percent} % less room than side by side`
                      : answer.saves_percent < 0
                        ? `${-answer.saves_percent} % more room than side by side`
                        : 'as much room as side by side'}{/if}
                </span>
              </button>
            </li>
          {/each}
        </ul>
        {@const kept = answers.find((one) => arranging.is(one))}
        {#if kept?.fill.length}
          <h2>Fill under unsupported parts</h2>
          <ul class="fill">
            {#each kept.fill as line (line)}<li>{line}</li>{/each}
          </ul>
        {/if}
      {/if}
      <h2>Packing order</h2>
      <ol class="order">
        {#each things as thing (thing.thing)}
          <li>
            <button
              aria-pressed={arranging.chosen === thing.thing}
              onclick={() => (arranging.chosen = arranging.chosen === thing.thing ? -1 : thing.thing)}
            >
              {thing.name}{#if thing.locked}<span class="locked">locked</span>{/if}
            </button>
          </li>
        {/each}
      </ol>
    </aside>
  </div>
{:else if desk.work.view}
  <NotYet {desk} what="arrangement" />
{/if}

<style>
  .station {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 236px;
    gap: 18px;
    align-items: start;
  }
  .bar {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px 14px;
    min-height: 44px;
    margin-bottom: 8px;
  }
  .bar label {
    display: flex;
    align-items: center;
    gap: 8px;
    font-size: 14px;
    color: var(--soft);
  }
  .bar select {
    width: 106px;
    height: 38px;
    color: var(--ink);
  }
  .bar .into {
    width: 148px;
    height: 38px;
    color: var(--ink);
  }
  .tick {
    display: flex;
    align-items: center;
    gap: 6px;
    min-height: 32px;
  }
  .tick input {
    accent-color: var(--twine);
  }
  progress {
    width: 130px;
    height: 10px;
    accent-color: var(--twine);
  }
  .says {
    color: var(--soft);
    font-size: 14px;
  }
  .picture {
    position: relative;
  }
  /* Over the picture's upper edge, so that nothing shifts when there is something to say. */
  .sides,
  .print {
    position: absolute;
    top: 4px;
    right: 64px;
    display: flex;
    align-items: center;
    gap: 12px;
    min-height: 32px;
    font-size: 14px;
  }
  .sides button {
    min-height: 32px;
  }
  .print {
    right: 12px;
  }
  .no {
    position: absolute;
    left: 12px;
    bottom: 8px;
    max-width: calc(100% - 24px);
    margin: 0;
    padding: 2px 6px;
    color: var(--stop);
    background: color-mix(in srgb, var(--sheet) 92%, transparent);
  }
  .no.quiet {
    visibility: hidden;
  }
  .steps {
    display: flex;
    align-items: center;
    gap: 14px;
    min-height: 42px;
    font-size: 14px;
  }
  .slide {
    display: flex;
    align-items: center;
    gap: 8px;
    color: var(--soft);
  }
  .slide input {
    width: 170px;
    accent-color: var(--twine);
  }
  .short input {
    width: 90px;
  }
  .step {
    flex: 1;
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  aside h2 {
    margin-top: 14px;
  }
  aside h2:first-child {
    margin-top: 8px;
  }
  .inside {
    font-size: 19px;
    margin: 2px 0 4px;
  }
  .answers,
  .fill,
  .order {
    margin-top: 4px;
    border-top: 1px solid var(--hair);
  }
  .answer {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0 8px;
    width: 100%;
    padding: 7px 8px;
    text-align: left;
    border-bottom: 1px solid var(--hair);
  }
  .answer[aria-pressed='true'],
  .order button[aria-pressed='true'] {
    background: var(--twine-pale);
    box-shadow: inset 3px 0 0 var(--twine);
  }
  .answer:hover,
  .order button:hover {
    background: var(--twine-pale);
  }
  .size {
    grid-column: 1 / -1;
    grid-row: 2;
  }
  .money {
    grid-column: 2;
    grid-row: 1;
  }
  .less {
    grid-column: 1 / -1;
    font-size: 13px;
    color: var(--soft);
  }
  .fill {
    font-size: 14px;
    padding-top: 4px;
  }
  .order {
    counter-reset: thing;
  }
  .order li {
    counter-increment: thing;
  }
  .order button {
    display: block;
    width: 100%;
    min-height: 32px;
    padding: 4px 8px;
    text-align: left;
    font-size: 14.5px;
    border-bottom: 1px solid var(--hair);
  }
  .order button::before {
    content: counter(thing) ' ';
    color: var(--soft);
    font-family: var(--font-mono);
    font-size: 13px;
    margin-right: 4px;
  }
  .locked {
    float: right;
    font-size: 12.5px;
    color: var(--board-deep);
  }
  @media (max-width: 1120px) {
    .station {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
