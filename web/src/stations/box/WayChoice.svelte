<script lang="ts">
  import type { WayView } from '../../lib/api/client';
  import { ofItem, ofWay, type BoxBeside } from './beside';
  import MoneyBar from '../../lib/ui/MoneyBar.svelte';

  interface Props {
    way: WayView;
    dearest: number;
    picked: boolean;
    pick: (item?: string) => void;
    /** Those laid side by side, and laying one there or taking it away. */
    beside: BoxBeside[];
    lay: (box: BoxBeside) => void;
  }
  let { way, dearest, picked, pick, beside, lay }: Props = $props();

  const isLaid = (key: string) => beside.some((one) => one.key === key);

  const best = $derived(way.quotes[0]);
  const pieces = $derived(
    way.from_stock || (way.blanks.length === 1 ? 'one blank' : `${way.blanks.length} blanks`),
  );
</script>

{#snippet compare(box: BoxBeside, inHand: boolean)}
  <input
    type="checkbox"
    class="compare accent-twine absolute right-2.5 bottom-2.25 h-4.25 w-4.25"
    tabindex={inHand ? 0 : -1}
    aria-label="Compare {box.name}"
    checked={isLaid(box.key)}
    onchange={() => lay(box)}
  />
{/snippet}

<!-- The keyboard goes to the selected box: arrow keys take another in hand. -->
<div class="one relative">
  <label class="way border-t-hair block cursor-pointer border-t px-3 pt-2.25 pb-2.5" class:picked>
    <input type="radio" name="way" value={way.way} checked={picked} onclick={() => pick()} class="sr-only" />
    <span class="top flex items-baseline justify-between gap-2.5">
      <b>{way.title}</b>
      <span class="figure text-lead">{way.total ?? '–'}</span>
    </span>
    {#if best && !way.too_large}<MoneyBar costs={best.costs} most={dearest} />{/if}
    <small class="text-soft text-small block pr-7">
      {#if way.too_large}{way.too_large}{:else}{pieces}, {way.minutes} min, {way.air_percent} % air, box with tape
        and time {way.own}{/if}
      {#if way.warnings.length && !way.too_large}<span class="text-stop">· {way.warnings[0]}</span>{/if}
      {#if way.chosen}<span class="text-twine font-semibold">· chosen</span>{/if}
    </small>
  </label>
  {@render compare(ofWay(way), picked)}
</div>
{#if picked && way.at_hand.length > 1}
  <fieldset class="hand bg-sheet mx-0 mt-0 mb-2 py-0 pr-3 pl-5 [box-shadow:inset_4px_0_0_var(--twine)]">
    <legend class="text-soft text-small float-left w-full px-0 pt-1 pb-0.5">In stock, large enough</legend>
    {#each way.at_hand as one (one.item)}
      <div class="one relative clear-both">
        <label
          class="border-t-hair text-note block cursor-pointer border-t px-2 pt-1 pb-1.25"
          class:here={one.picked}
        >
          <input
            type="radio"
            name="item"
            value={one.item}
            checked={one.picked}
            onchange={() => pick(one.item)}
            class="sr-only"
          />
          <span class="top flex items-baseline justify-between gap-2.5"
            ><span>{one.item}</span><span class="figure text-body">{one.total ?? '–'}</span></span
          >
          <small class="text-soft text-small block pr-7">
            {#if one.room}room {one.room};{/if}
            {one.takes} in stock
            {#if one.chosen}<span class="text-twine font-semibold">· chosen</span>{/if}
          </small>
        </label>
        {@render compare(ofItem(way, one), one.picked)}
      </div>
    {/each}
  </fieldset>
{/if}

<style>
  .hand .here {
    background: var(--ground);
  }
  .hand .here .top {
    font-weight: 550;
  }
  .hand label:has(:focus-visible) {
    outline: 2.5px solid var(--twine);
  }

  .way:hover {
    background: color-mix(in srgb, var(--sheet) 60%, transparent);
  }
  .picked {
    background: var(--sheet);
    box-shadow: inset 4px 0 0 var(--twine);
  }
  .way:has(:focus-visible) {
    outline: 2.5px solid var(--twine);
    outline-offset: 1px;
  }
</style>
