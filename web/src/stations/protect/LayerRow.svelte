<script lang="ts">
  // One layer: what it is, how many, and what its form asks for; below, what it adds and what is cut for it.
  import type { TypedLayer } from '../../job/typed';
  import type { PartView } from '../../lib/api/client';
  import { formOf, shop } from '../../lib/shop.svelte';
  import Measured from '../../lib/ui/Measured.svelte';
  import Why from '../../lib/ui/Why.svelte';

  interface Props {
    id: string;
    layer: TypedLayer;
    coat?: PartView['coats'] extends (infer C)[] | undefined ? C : never;
    problem?: string;
    /** Only materials of these forms are offered. */
    forms?: string[] | null;
    /** Whether it goes on a pile, so that it may go on each piece first. */
    piled?: boolean;
    /** Boxes found for this job, beside those there. */
    found?: string[];
    touch: () => void;
    remove: () => void;
  }
  let {
    id,
    layer = $bindable(),
    coat,
    problem = '',
    forms = null,
    piled = false,
    found = [],
    touch,
    remove,
  }: Props = $props();

  const materials = $derived(shop.view?.shop.materials ?? []);
  const offered = $derived(
    materials.filter((one) => (forms ? forms.includes(one.form) : !formOf(one.form)?.on_walls)),
  );
  const material = $derived(materials.find((one) => one.code === layer.material));
  const form = $derived(formOf(material?.form ?? ''));
  const asks = $derived(form?.asks ?? []);

  const there = $derived(
    form?.of_stock === 'boxes'
      ? [...found, ...(shop.view?.shop.boxes ?? []).map((one) => one.name)]
      : (shop.view?.shop.mailers ?? []).map((one) => one.name),
  );

  /** Another material: what is wound both ways was the one before. */
  function changed(): void {
    layer.crossed &&= asks.includes('crossed');
    if (!asks.includes('on')) layer.on = 'all';
    if (!there.includes(layer.item)) layer.item = '';
    touch();
  }
</script>

<div class="layer" role="group" aria-label={material?.name ?? layer.material}>
  <select {id} class="field" aria-label="Material" bind:value={layer.material} onchange={changed}>
    {#each offered as one (one.code)}<option value={one.code}>{one.name}</option>{/each}
    {#if !offered.some((one) => one.code === layer.material)}
      <option value={layer.material}>{layer.material}</option>
    {/if}
  </select>
  {#if material && asks.includes('layers')}
    <label class="times"
      >×
      <input
        id="{id}-layers"
        class="field figure"
        aria-label="Layers of {material.name}"
        inputmode="numeric"
        maxlength="3"
        autocomplete="off"
        bind:value={layer.layers}
        oninput={touch}
      />
    </label>
  {:else}
    <span></span>
  {/if}
  <div class="asks">
    {#if asks.includes('crossed') || layer.crossed}
      <label class="tick"
        ><input type="checkbox" id="{id}-crossed" bind:checked={layer.crossed} onchange={touch} />both ways</label
      >
      {#if layer.crossed}
        <label class="tick"
          >across
          <input
            class="field figure small count"
            id="{id}-across"
            inputmode="numeric"
            maxlength="3"
            autocomplete="off"
            placeholder={layer.layers}
            bind:value={layer.across}
            oninput={touch}
          /></label
        >
      {/if}
    {/if}
    {#if material?.bubbly && asks.includes('bubbles')}
      <select
        class="field small"
        aria-label="Which way the bubbles look"
        bind:value={layer.bubbles}
        onchange={touch}
      >
        <option value=""
          >{shop.view?.shop.bubbles === 'in'
            ? 'bubbles in, shop default'
            : 'bubbles out, shop default'}</option
        >
        <option value="out">smooth side to the goods</option>
        <option value="in">bubbles to the goods</option>
      </select>
    {/if}
    {#if asks.includes('item')}
      <select
        class="field small"
        id="{id}-item"
        aria-label="Box or mailer from stock"
        bind:value={layer.item}
        onchange={touch}
      >
        <option value="">{form?.of_stock === 'boxes' ? 'cut new' : 'none, as listed'}</option>
        {#each there as name (name)}<option value={name}>{name}</option>{/each}
        {#if layer.item && !there.includes(layer.item)}<option value={layer.item}>{layer.item}</option>{/if}
      </select>
      {#if form?.of_stock === 'boxes' && layer.item}
        <label class="tick"
          ><input type="checkbox" id="{id}-open" bind:checked={layer.open} onchange={touch} />open at the top</label
        >
      {/if}
    {/if}
    {#if asks.includes('on')}
      <select
        class="field small"
        id="{id}-on"
        aria-label="Where it goes"
        bind:value={layer.on}
        onchange={touch}
      >
        {#each shop.view?.sides ?? [] as one (one.value)}<option value={one.value}>{one.says}</option>{/each}
      </select>
    {/if}
    {#if piled}
      <label class="tick"
        ><input type="checkbox" id="{id}-each" bind:checked={layer.each} onchange={touch} />each piece</label
      >
    {/if}
    {#if asks.includes('room')}
      <label class="tick"
        >room on each side
        <input
          class="field figure small"
          id="{id}-room"
          data-measure="length"
          bind:value={layer.room}
          oninput={touch}
          placeholder="1"
          autocomplete="off"
        /></label
      >
    {/if}
    {#if asks.includes('hollow')}
      <label class="tick"
        >hollow
        <input
          class="field figure small wide"
          id="{id}-hollow"
          bind:value={layer.hollow}
          oninput={touch}
          placeholder="10 x 4 x 3"
          autocomplete="off"
        /></label
      >
    {/if}
    {#if asks.includes('lengths')}
      <label class="tick"
        >tubes
        <input
          class="field figure small wide"
          id="{id}-lengths"
          bind:value={layer.lengths}
          oninput={touch}
          placeholder="as the shape has them"
          autocomplete="off"
        /></label
      >
    {/if}
    <label class="tick"
      ><input type="checkbox" id="{id}-reused" bind:checked={layer.reused} onchange={touch} />reused</label
    >
  </div>
  <button type="button" class="off" onclick={remove} aria-label="Remove {material?.name ?? layer.material}"
    >×</button
  >
  <p class="comes" class:wrong={problem}>
    {#if problem}
      {problem}
    {:else if coat}
      {#if coat.cuts.length}
        <span
          >cut <Why of="this length" why={coat.why}
            ><span class="figure"
              >{#each coat.cuts as piece, k (k)}{k ? ', ' : ''}<Measured text={piece} />{/each}</span
            ></Why
          ></span
        >
      {/if}
      <span>{coat.amount}, {coat.weight}, {coat.price}</span>
      {#if coat.grows}<span>adds <span class="figure"><Measured text={coat.grows} /></span></span>{/if}
    {/if}
  </p>
</div>

<style>
  .layer {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 76px 28px;
    gap: 4px 8px;
    align-items: center;
    padding: 6px 0;
    border-bottom: 1px solid var(--hair);
  }
  .times {
    display: flex;
    align-items: center;
    gap: 5px;
  }
  .asks {
    grid-column: 1 / -1;
    grid-row: 2;
    display: flex;
    flex-wrap: wrap;
    gap: 4px 12px;
    align-items: center;
  }
  .asks .field {
    height: 32px;
  }
  .field {
    height: 36px;
    padding: 0 6px;
  }
  .small {
    width: auto;
    max-width: 190px;
    font-size: 14px;
  }
  input.small {
    width: 64px;
  }
  input.count {
    width: 44px;
  }
  input.wide {
    width: 130px;
  }
  .tick {
    display: flex;
    gap: 6px;
    align-items: center;
    font-size: 14px;
  }
  .tick input[type='checkbox'] {
    width: 17px;
    height: 17px;
    accent-color: var(--twine);
  }
  .off {
    font-size: 20px;
    color: var(--soft);
  }
  .off:hover {
    color: var(--stop);
  }
  .comes {
    grid-column: 1 / -1;
    display: flex;
    flex-wrap: wrap;
    gap: 2px 16px;
    min-height: 21px;
    font-size: 14px;
    color: var(--soft);
  }
  .wrong {
    color: var(--stop);
  }
</style>
