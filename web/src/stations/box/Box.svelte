<script lang="ts">
  // Box: the ways to get one by what each costs in all, and the cut sheet of the way in hand.
  import type { JobDesk } from '../../job/job.svelte';
  import HouseRules from '../../job/HouseRules.svelte';
  import NotYet from '../../job/NotYet.svelte';
  import Measured from '../../lib/ui/Measured.svelte';
  import MoneyKey from '../../lib/ui/MoneyKey.svelte';
  import CutSheet from './CutSheet.svelte';
  import type { BoxBeside } from './beside';
  import BoxesBeside from './BoxesBeside.svelte';
  import FoundBoxes from './FoundBoxes.svelte';
  import WayChoice from './WayChoice.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const ways = $derived(
    desk.work.ways.filter((one) => one.too_large === null || one.way === desk.work.way?.way),
  );
  const way = $derived(desk.work.way);
  const noWays = $derived([
    ...desk.work.ways
      .filter((one) => !ways.includes(one))
      .map(({ way, title, too_large, total }) => ({
        way,
        title,
        why: `${too_large ?? ''}${total ? `; it would come to ${total}` : ''}`,
      })),
    ...(desk.work.view?.no_ways ?? []),
  ]);
  const dearest = $derived(Math.max(...ways.map((one) => Number(one.total ?? 0)), 0));
  // What is too weak or leaves the value uncovered stands after what is not, whatever it costs.
  const byTotal = $derived(
    ways.every((one, n) => Number(one.total ?? Infinity) >= Number(ways[n - 1]?.total ?? 0)),
  );
  // What was laid side by side before something was typed stands for other goods.
  let laid = $state.raw<{ boxes: BoxBeside[]; of: number }>({ boxes: [], of: 0 });
  const beside = $derived(laid.of === desk.strokes ? laid.boxes : []);
  function lay(box: BoxBeside): void {
    const others = beside.filter((one) => one.key !== box.key);
    const boxes = others.length < beside.length ? others : [...others, box].slice(-2);
    laid = { boxes, of: desk.strokes };
  }
  $effect(() => desk.work.draw());
</script>

<HouseRules {desk} />
{#if way}
  <div
    class="station max-desk:grid-cols-[minmax(0,1fr)] grid grid-cols-[306px_minmax(0,1fr)] items-start gap-5"
  >
    <section
      class="ways max-desk:static max-desk:max-h-85 sticky top-2.5 max-h-[calc(100vh_-_200px)] overflow-y-auto pr-1.5"
      aria-label="Box styles"
    >
      <h2>{ways.length} box styles, {byTotal ? 'lowest total first' : 'strong enough and covered first'}</h2>
      <p class="text-soft text-small">Tick two to compare them.</p>
      <fieldset class="border-b-hair mx-0 mt-1.5 mb-2.5 border-b">
        <legend class="sr-only">Way</legend>
        {#each ways as one (one.way)}
          <WayChoice
            way={one}
            {dearest}
            picked={one.way === way.way}
            pick={(item) => desk.work.take(one.way, item)}
            {beside}
            {lay}
          />
        {/each}
      </fieldset>
      <MoneyKey />
      {#if desk.work.view?.ways_left_out}
        <p class="left text-soft text-note mt-1.5">
          This job leaves out {desk.work.view.ways_left_out} box styles.
          <button class="link" onclick={() => desk.choices.lookAtAll()}>Show all</button>
        </p>
      {/if}
      <FoundBoxes {desk} />
      {#if desk.work.view?.not_here?.length}
        <h2 class="mt-4.5">Ready-made boxes to buy</h2>
        <dl>
          {#each desk.work.view.not_here as one (one.name)}
            <dt class="font-strong text-note mt-1.5">
              {one.name}, <span class="figure"><Measured text={one.inside} /></span>
            </dt>
            <dd class="text-soft text-small wrap-anywhere">{one.says}</dd>
          {/each}
        </dl>
      {/if}
      {#if noWays.length}
        <h2 class="mt-4.5">Box styles that do not fit</h2>
        <dl>
          {#each noWays as one (one.way)}
            <dt class="font-strong text-note mt-1.5">{one.title}</dt>
            <dd class="text-soft text-small wrap-anywhere">{one.why}</dd>
          {/each}
        </dl>
      {/if}
    </section>
    <div>
      {#if beside.length}
        <BoxesBeside boxes={beside} drop={(key) => beside.filter((one) => one.key === key).forEach(lay)} />
      {/if}
      <CutSheet {desk} {way} />
    </div>
  </div>
{:else if desk.work.view}
  <NotYet {desk} what="box" />
{/if}
