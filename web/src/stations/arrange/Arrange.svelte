<script lang="ts">
  // Arrange: everything in its own shape in the box, found by the engine or moved by hand, stepped through as it is packed.
  import Slide from '../../lib/ui/Slide.svelte';
  import Choose from '../../lib/ui/Choose.svelte';
  import { onDestroy, untrack } from 'svelte';
  import type { JobDesk } from '../../job/job.svelte';
  import NotYet from '../../job/NotYet.svelte';
  import Measured from '../../lib/ui/Measured.svelte';
  import type { Side } from '../../lib/view3d/packed';
  import type { Effort } from '../../job/search.svelte';
  import { Arranging } from './arranging.svelte';
  import FillPlan from './FillPlan.svelte';
  import HandBar from './HandBar.svelte';
  import IntoBoxes from './IntoBoxes.svelte';
  import PackedBox from './PackedBox.svelte';
  import Tick from '../../lib/ui/Tick.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const arranging = new Arranging(untrack(() => desk));
  onDestroy(() => arranging.leave());
  const search = $derived(desk.search);

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
  const complaint = $derived(search.trouble || (arranging.felt[0]?.says ?? ''));
  const answers = $derived(search.run?.answers ?? []);
  // What is thinner than a line is drawn as one.
  const board = $derived(Math.max(desk.work.way?.wall_mm ?? 4, 1.5));
</script>

{#if arranging.layout && desk.work.view}
  <div
    class="station max-desk:grid-cols-[minmax(0,1fr)] grid grid-cols-[minmax(0,1fr)_236px] items-start gap-4.5"
  >
    <section aria-label="The packed box">
      <div class="bar mb-2 flex min-h-11 flex-wrap items-center gap-x-3.5 gap-y-2">
        <button class="btn btn-main" disabled={search.searching || count < 2} onclick={() => search.begin()}>
          {knot?.state === 'tied' ? 'Arrange again' : 'Arrange'}
        </button>
        <Choose
          id="effort"
          labelled="beside"
          label="Effort"
          place="h-9.5 w-30"
          bind:value={search.effort}
          disabled={search.searching}
          options={EFFORTS}
        />
        <label class="text-soft text-note flex items-center gap-2">
          <span>Fit into (inside size)</span>
          <input
            class="field into text-ink h-9.5 w-37"
            bind:value={search.into}
            disabled={search.searching}
            placeholder="lowest cost"
            autocomplete="off"
          />
        </label>
        {#if search.searching && search.run}
          <progress
            class="accent-twine h-2.5 w-32.5"
            max={search.run.of}
            value={search.run.done}
            aria-label="How far the search is"
          ></progress>
          <button class="btn" onclick={() => search.stop()}>Stop, keep the best</button>
        {:else}
          <span class="says text-soft text-note">{knot?.says}</span>
        {/if}
      </div>
      <div class="relative">
        <PackedBox bind:this={packed} {arranging} {board} step={shown} {apart} {wrapped} />
        <span
          class="sides text-note absolute top-1 right-16 flex min-h-8 items-center gap-3"
          role="group"
          aria-label="Look from"
        >
          {#each SIDES as [side, word] (side)}
            <button class="link min-h-8" onclick={() => packed?.look(side)}>{word}</button>
          {/each}
        </span>
        <a
          class="link text-note absolute top-1 right-3 flex min-h-8 items-center gap-3"
          href="/api/jobs/{desk.id}/packing.pdf"
          target="_blank"
          onclick={(event) => desk.saver.follow(event, 'A drawing')}>Print</a
        >
        <p
          class="no text-stop absolute bottom-2 left-3 m-0 max-w-[calc(100%_-_24px)] px-1.5 py-0.5 [background:color-mix(in_srgb,var(--sheet)_92%,transparent)]"
          class:quiet={!complaint}
          role="alert"
        >
          {complaint}
        </p>
      </div>
      <div
        class="steps text-note max-phone:flex-wrap max-phone:gap-y-0 flex min-h-10.5 items-center gap-x-3.5"
      >
        <div class="text-soft flex items-center gap-2">
          <span aria-hidden="true">Show up to step</span><Slide
            id="packing-step"
            label="Show up to step"
            most={count}
            value={shown}
            change={(to) => (stepped = to)}
          />
        </div>
        <span class="step min-w-0 flex-1 overflow-hidden text-ellipsis whitespace-nowrap">
          {#if last}{shown} of {count}: <b>{last.name}</b> goes in, straight down{:else if shown}all {count} in{:else}an
            empty box{/if}
        </span>
        <div class="short text-soft flex items-center gap-2">
          <span aria-hidden="true">Spread</span><Slide
            id="spread"
            label="Spread"
            most={1}
            step={0.05}
            place="w-22.5"
            bind:value={apart}
          />
        </div>
        <Tick bind:checked={wrapped}>Wrap</Tick>
        <Tick bind:checked={arranging.filled}>Fill</Tick>
      </div>
      <HandBar {arranging} />
      <FillPlan {desk} />
    </section>

    <aside>
      <h2 class="mt-3.5 first:mt-2">Inside size needed</h2>
      {#if desk.work.view.inside}
        <p class="inside figure text-head mx-0 mt-0.5 mb-1">
          <Measured text={desk.work.view.inside.figure.text} />
        </p>
      {/if}
      <IntoBoxes {arranging} />
      {#if answers.length}
        <h2 class="mt-3.5 first:mt-2">Arrangements, lowest total first</h2>
        <ul class="border-t-hair mt-1 border-t">
          {#each answers as answer (answer.inside.mm.join())}
            <li>
              <button
                class="answer border-b-hair aria-pressed:bg-twine-pale hover:bg-twine-pale grid w-full grid-cols-[1fr_auto] gap-x-2 gap-y-0 border-b px-2 py-1.75 text-left aria-pressed:[box-shadow:inset_3px_0_0_var(--twine)]"
                aria-pressed={search.is(answer)}
                disabled={Boolean(answer.lacks?.length)}
                onclick={() => search.keep(answer)}
              >
                <span class="words">{SHAPES[answer.proportion]}</span>
                <span class="figure size col-span-full row-start-2"
                  ><Measured text={answer.inside.figure.text} /></span
                >
                <span class="figure col-start-2 row-start-1">{answer.total ?? ''}</span>
                {#if answer.by}<span class="text-soft text-small col-span-full">{answer.by}</span>{/if}
                <span class="text-soft text-small col-span-full">
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
        {@const kept = answers.find((one) => search.is(one))}
        {#if kept?.fill.length}
          <h2 class="mt-3.5 first:mt-2">Fill under unsupported parts</h2>
          <ul class="fill border-t-hair text-note mt-1 border-t pt-1">
            {#each kept.fill as line (line)}<li>{line}</li>{/each}
          </ul>
        {/if}
      {/if}
      <h2 class="mt-3.5 first:mt-2">Packing order</h2>
      <ol
        class="order border-t-hair mt-1 max-h-[60vh] min-h-40 overflow-y-auto border-t [counter-reset:thing]"
      >
        {#each things as thing (thing.thing)}
          <li class="[counter-increment:thing]">
            <button
              class="border-b-hair aria-pressed:bg-twine-pale hover:bg-twine-pale text-note block min-h-8 w-full border-b px-2 py-1 text-left aria-pressed:[box-shadow:inset_3px_0_0_var(--twine)]"
              aria-pressed={arranging.chosen === thing.thing}
              onclick={() => (arranging.chosen = arranging.chosen === thing.thing ? -1 : thing.thing)}
            >
              {thing.name}{#if thing.locked}<span class="text-board-deep text-fine [float:right]">locked</span
                >{/if}
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
  /* Over the picture's upper edge, so that nothing shifts when there is something to say. */

  .no.quiet {
    visibility: hidden;
  }

  .order button::before {
    content: counter(thing) ' ';
    color: var(--soft);
    font-family: var(--font-mono);
    font-size: var(--text-small);
    margin-right: 4px;
  }
</style>
