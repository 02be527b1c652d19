<script lang="ts">
  // One layer: what it is, how many, and what its form asks for; below, what it adds and what is cut for it.
  import Choose from '../../lib/ui/Choose.svelte';
  import type { TypedLayer } from '../../job/typed';
  import type { PartView } from '../../lib/api/client';
  import { formOf, shop } from '../../lib/shop.svelte';
  import Measured from '../../lib/ui/Measured.svelte';
  import Why from '../../lib/ui/Why.svelte';
  import Remove from '../../lib/ui/Remove.svelte';
  import Tick from '../../lib/ui/Tick.svelte';

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

<div
  class="layer border-b-hair grid grid-cols-[minmax(0,1fr)_76px_28px] items-center gap-x-2 gap-y-1 border-b px-0 py-1.5"
  role="group"
  aria-label={material?.name ?? layer.material}
>
  <Choose
    {id}
    labelled="unseen"
    label="Material"
    place="h-9 px-1.5 py-0"
    bind:value={layer.material}
    change={changed}
    options={offered.map((one) => [one.code, one.name] as const)}
  />
  {#if material && asks.includes('layers')}
    <label class="flex items-center gap-1.25"
      >×
      <input
        id="{id}-layers"
        class="field figure h-9 px-1.5 py-0"
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
  <div class="asks col-span-full row-start-2 flex flex-wrap items-center gap-x-3 gap-y-1">
    {#if asks.includes('crossed') || layer.crossed}
      <Tick id="{id}-crossed" bind:checked={layer.crossed} change={touch}>both ways</Tick>
      {#if layer.crossed}
        <label class="tick text-note flex items-center gap-1.5"
          >across
          <input
            class="field figure count text-note h-8 w-11 max-w-47.5 px-1.5 py-0"
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
      <Choose
        labelled="unseen"
        label="Which way the bubbles look"
        place="text-note h-8 w-auto max-w-47.5 px-1.5"
        bind:value={layer.bubbles}
        change={touch}
        options={[
          ['', shop.view?.shop.bubbles === 'in' ? 'bubbles in, shop default' : 'bubbles out, shop default'],
          ['out', 'smooth side to the goods'],
          ['in', 'bubbles to the goods'],
        ]}
      />
    {/if}
    {#if asks.includes('item')}
      <Choose
        id="{id}-item"
        labelled="unseen"
        label="Box or mailer from stock"
        place="text-note h-8 w-auto max-w-47.5 px-1.5"
        bind:value={layer.item}
        change={touch}
        options={[['', form?.of_stock === 'boxes' ? 'cut new' : 'none, as listed'], ...there]}
      />
      {#if form?.of_stock === 'boxes' && layer.item}
        <Tick id="{id}-open" bind:checked={layer.open} change={touch}>open at the top</Tick>
      {/if}
    {/if}
    {#if asks.includes('on')}
      <Choose
        id="{id}-on"
        labelled="unseen"
        label="Where it goes"
        place="text-note h-8 w-auto max-w-47.5 px-1.5"
        bind:value={layer.on}
        change={touch}
        options={(shop.view?.sides ?? []).map((one) => [one.value, one.says] as const)}
      />
    {/if}
    {#if piled}
      <Tick id="{id}-each" bind:checked={layer.each} change={touch}>each piece</Tick>
    {/if}
    {#if asks.includes('room')}
      <label class="tick text-note flex items-center gap-1.5"
        >room on each side
        <input
          class="field figure text-note h-8 w-16 max-w-47.5 px-1.5 py-0"
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
      <label class="tick text-note flex items-center gap-1.5"
        >hollow
        <input
          class="field figure text-note h-8 w-32.5 max-w-47.5 px-1.5 py-0"
          id="{id}-hollow"
          bind:value={layer.hollow}
          oninput={touch}
          placeholder="10 x 4 x 3"
          autocomplete="off"
        /></label
      >
    {/if}
    {#if asks.includes('lengths')}
      <label class="tick text-note flex items-center gap-1.5"
        >tubes
        <input
          class="field figure text-note h-8 w-32.5 max-w-47.5 px-1.5 py-0"
          id="{id}-lengths"
          bind:value={layer.lengths}
          oninput={touch}
          placeholder="as the shape has them"
          autocomplete="off"
        /></label
      >
    {/if}
    <Tick id="{id}-reused" bind:checked={layer.reused} change={touch}>reused</Tick>
  </div>
  <Remove of={material?.name ?? layer.material} go={remove} />
  <p
    class="comes text-soft text-note col-span-full flex min-h-5.25 flex-wrap gap-x-4 gap-y-0.5"
    class:wrong={problem}
  >
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
  .wrong {
    color: var(--stop);
  }
</style>
