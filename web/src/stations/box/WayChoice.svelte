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
    class="compare"
    tabindex={inHand ? 0 : -1}
    aria-label="Compare {box.name}"
    title="Compare it with another"
    checked={isLaid(box.key)}
    onchange={() => lay(box)}
  />
{/snippet}

<!-- The keyboard goes to the selected box: arrow keys take another in hand. -->
<div class="one">
  <label class="way" class:picked>
    <input type="radio" name="way" value={way.way} checked={picked} onclick={() => pick()} class="sr-only" />
    <span class="top">
      <b>{way.title}</b>
      <span class="figure">{way.total ?? '–'}</span>
    </span>
    {#if best && !way.too_large}<MoneyBar costs={best.costs} most={dearest} />{/if}
    <small>
      {#if way.too_large}{way.too_large}{:else}{pieces}, {way.minutes} min, {way.air_percent} % air, box with tape
        and time {way.own}{/if}
      {#if way.warnings.length && !way.too_large}<span class="weak">· {way.warnings[0]}</span>{/if}
      {#if way.chosen}<span class="tied">· chosen</span>{/if}
    </small>
  </label>
  {@render compare(ofWay(way), picked)}
</div>
{#if picked && way.at_hand.length > 1}
  <fieldset class="hand">
    <legend>In stock, large enough</legend>
    {#each way.at_hand as one (one.item)}
      <div class="one">
        <label class:here={one.picked}>
          <input
            type="radio"
            name="item"
            value={one.item}
            checked={one.picked}
            onchange={() => pick(one.item)}
            class="sr-only"
          />
          <span class="top"><span>{one.item}</span><span class="figure">{one.total ?? '–'}</span></span>
          <small>
            {#if one.room}room {one.room};{/if}
            {one.takes} in stock
            {#if one.chosen}<span class="tied">· chosen</span>{/if}
          </small>
        </label>
        {@render compare(ofItem(way, one), one.picked)}
      </div>
    {/each}
  </fieldset>
{/if}

<style>
  .one {
    position: relative;
  }
  .compare {
    position: absolute;
    right: 10px;
    bottom: 9px;
    width: 17px;
    height: 17px;
    accent-color: var(--twine);
  }
  small {
    display: block;
    padding-right: 28px;
  }
  .hand {
    margin: 0 0 8px;
    padding: 0 12px 0 20px;
    background: var(--sheet);
    box-shadow: inset 4px 0 0 var(--twine);
  }
  .hand legend {
    padding: 4px 0 2px;
    font-size: 13px;
    color: var(--soft);
  }
  .hand label {
    display: block;
    padding: 4px 8px 5px;
    border-top: 1px solid var(--hair);
    font-size: 14.5px;
    cursor: pointer;
  }
  .hand .here {
    background: var(--ground);
  }
  .hand .here .top {
    font-weight: 550;
  }
  .hand label:has(:focus-visible) {
    outline: 2.5px solid var(--twine);
  }
  .hand .figure {
    font-size: 15px;
  }
  .way {
    display: block;
    padding: 9px 12px 10px;
    border-top: 1px solid var(--hair);
    cursor: pointer;
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
  .top {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
    gap: 10px;
  }
  .figure {
    font-size: 17px;
  }
  small {
    font-size: 13.5px;
    color: var(--soft);
  }
  .tied {
    color: var(--twine);
    font-weight: 600;
  }
  .weak {
    color: var(--stop);
  }
</style>
