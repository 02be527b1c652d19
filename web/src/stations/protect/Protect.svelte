<script lang="ts">
  // Protect: each part with its layers from the goods outward, its gap and how fragile it is; what all of it takes.
  import Choose from '../../lib/ui/Choose.svelte';
  import type { JobDesk } from '../../job/job.svelte';
  import { blankLayer, PLACES, type TypedPart } from '../../job/typed';
  import { shop, usualWrap } from '../../lib/shop.svelte';
  import { toast } from '../../lib/toast.svelte';
  import Faults from '../../lib/ui/Faults.svelte';
  import Measured from '../../lib/ui/Measured.svelte';
  import Why from '../../lib/ui/Why.svelte';
  import { nameOf } from '../measure/ask';
  import Known from '../measure/Known.svelte';
  import MayLie from './MayLie.svelte';
  import LayerRow from './LayerRow.svelte';
  import WrapSheet from './WrapSheet.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const touch = () => desk.touch();
  const n = $derived(desk.parts.chosen);
  const part = $derived(desk.parts.inHand);
  const view = $derived(desk.work.view?.parts[n]);
  const fragilities = $derived(shop.view?.fragilities ?? []);

  function layersOf(one: TypedPart): string {
    const names = one.protect.map((layer) => {
      const name = shop.view?.shop.materials?.find((m) => m.code === layer.material)?.name ?? layer.material;
      return `${name.split(',')[0]}${layer.layers !== '1' ? ` × ${layer.layers}` : ''}`;
    });
    return names.join(', ') || 'bare';
  }

  function add(): void {
    part.protect.push(blankLayer(usualWrap()));
    touch();
  }

  function remove(k: number): void {
    const of = part;
    const [gone] = of.protect.splice(k, 1);
    touch();
    if (gone) {
      toast.show('The layer is off.', () => {
        of.protect.splice(k, 0, gone);
        touch();
      });
    }
  }

  function likeThis(): void {
    const before = desk.typed.parts.map((one) => ({ protect: one.protect, gap: one.gap, gapBy: one.gapBy }));
    const layers = $state.snapshot(part.protect);
    for (const one of desk.typed.parts) {
      if (one === part) continue;
      one.protect = layers.map((layer) => ({ ...layer }));
      one.gap = part.gap;
      one.gapBy = { ...part.gapBy };
    }
    touch();
    toast.show(`All parts are wrapped like ${nameOf(part, n)}.`, () => {
      desk.typed.parts.forEach((one, k) => Object.assign(one, before[k]));
      touch();
    });
  }

  function moved(event: KeyboardEvent): void {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    const next = step === undefined ? -1 : n + step;
    if (!desk.typed.parts[next]) return;
    event.preventDefault();
    desk.parts.chosen = next;
    document.getElementById(`wrap-${next}`)?.focus();
  }

  const faults = $derived([
    {
      field: 'gap',
      label: 'Gap',
      sentence: desk.work.problem(`parts[${n}].gap`) || desk.work.problem(`parts[${n}].gap.wall`),
    },
    ...PLACES.map((place) => ({
      field: `gap-${place}`,
      label: `Gap, ${PLACE_LABELS[place].toLowerCase()}`,
      sentence: desk.work.problem(`parts[${n}].gap.${place}`),
    })),
    {
      field: 'piles',
      label: 'Piles',
      sentence: desk.work.problem(`parts[${n}].piles`) || desk.work.problem(`parts[${n}].shape.kind`),
    },
    { field: 'fragility', label: 'Fragility', sentence: desk.work.problem(`parts[${n}].fragility`) },
  ]);

  let opened = $state<number | null>(null);
  const byPlace = $derived(opened === part.key || PLACES.some((place) => part.gapBy[place].trim()));
  const PLACE_LABELS = {
    between: 'Between things',
    below: 'Below',
    above: 'Above',
    edges: 'At its edges',
    faces: 'At its faces',
  };

  const layerProblem = (k: number) =>
    desk.work.view?.problems.find((problem) => problem.field.startsWith(`parts[${n}].protect[${k}]`))
      ?.sentence ?? '';
</script>

<div class="max-desk:grid-cols-[minmax(0,1fr)] grid grid-cols-[310px_minmax(0,1fr)] items-start gap-5">
  <section class="grid gap-4" aria-label="Parts to wrap">
    <!-- Up and down go from part to part. -->
    <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
    <ul class="max-desk:max-h-46 max-h-[calc(100vh-200px)] overflow-y-auto" onkeydown={moved}>
      {#each desk.typed.parts as one, k (one.key)}
        {@const seen = desk.work.view?.parts[k]}
        <li>
          <button
            class="border-b-hair aria-pressed:border-l-twine grid w-full grid-cols-[minmax(0,1fr)_auto] gap-x-2.5 gap-y-0 border-b border-l-3 border-l-transparent px-2.5 py-2 text-left aria-pressed:[background:color-mix(in_srgb,var(--twine-pale)_60%,transparent)]"
            type="button"
            id="wrap-{k}"
            aria-pressed={k === n}
            tabindex={k === n ? 0 : -1}
            onclick={() => (desk.parts.chosen = k)}
          >
            <span class="name overflow-hidden font-semibold text-ellipsis whitespace-nowrap"
              >{nameOf(one, k)}{#if one.count !== '1'}&ensp;<span class="text-soft text-note"
                  >× {one.count}</span
                >{/if}</span
            >
            <span class="size figure text-note whitespace-nowrap">
              {#if seen?.wrapped}<Measured text={seen.wrapped.text} />{:else}<span class="text-soft text-note"
                  >not measured</span
                >{/if}
            </span>
            <span class="text-soft text-small">{layersOf(one)}</span>
            {#if seen?.cushion}
              <span class="text-soft text-small text-right" class:short={!seen.cushion.enough}
                >{seen.cushion.enough ? 'cushion OK' : `needs ${seen.cushion.asks}`}</span
              >
            {/if}
          </button>
        </li>
      {/each}
    </ul>
    <div class="max-desk:hidden">
      {#if desk.kind}<Known code={desk.kind} of="protecting" />{/if}
    </div>
  </section>

  <section class="edit" aria-label="Layers of {nameOf(part, n)}">
    <div class="flex justify-between gap-3">
      <h2 class="text-ink text-body">{nameOf(part, n)}, from the goods outward</h2>
      {#if desk.typed.parts.length > 1}
        <button type="button" class="link text-note" onclick={likeThis}>Wrap all like this</button>
      {/if}
    </div>
    <p class="grown text-lead flex min-h-8.5 flex-wrap items-baseline gap-x-2.5 gap-y-1">
      {#if view?.bare && view.wrapped}
        <span class="text-soft text-note">bare</span>
        <span class="figure"><Measured text={view.bare.figure.text} /></span>
        <span class="text-soft text-note">wrapped</span>
        <b class="figure"
          ><Why of="this wrapped size" why={view.wrapped.why}><Measured text={view.wrapped.text} /></Why></b
        >
        <span class="text-soft text-note">{view.weight}</span>
      {:else}
        <span class="text-soft text-note">It grows here as soon as it is measured.</span>
      {/if}
    </p>
    {#each part.protect as layer, k (layer)}
      <LayerRow
        id="layer-{k}"
        bind:layer={() => layer, (changed) => (part.protect[k] = changed)}
        coat={view?.coats?.[k]}
        problem={layerProblem(k)}
        piled={Boolean(part.piles.trim() || part.sleeveHolds.trim())}
        found={desk.typed.foundBoxes.map((box, b) => box.name || `found box ${b + 1}`)}
        {touch}
        remove={() => remove(k)}
      />
    {/each}
    <button type="button" class="btn" id="add-layer" onclick={add}>Add a layer</button>

    <div class="fields">
      <div>
        <Choose
          id="fragility"
          label="Fragility"
          place="px-2"
          bind:value={part.fragility}
          change={touch}
          options={[['', 'not said'], ...fragilities.map((one) => [one.value, one.says] as const)]}
        />
      </div>
      <div>
        <label class="text-soft text-small block whitespace-nowrap" for="gap"
          >{byPlace ? 'Gap to walls' : 'Gap all round'}, {shop.units}</label
        >
        <input
          id="gap"
          class="field figure px-2 py-0"
          data-measure="length"
          maxlength="80"
          autocomplete="off"
          aria-describedby="gap-faults"
          placeholder={view?.gap ? view.gap.replace(` ${shop.units}`, '') : ''}
          bind:value={part.gap}
          oninput={touch}
        />
      </div>
      {#if byPlace}
        {#each PLACES as place (place)}
          <div>
            <label class="text-soft text-small block whitespace-nowrap" for="gap-{place}"
              >{PLACE_LABELS[place]}</label
            >
            <input
              id="gap-{place}"
              class="field figure px-2 py-0"
              data-measure="length"
              maxlength="80"
              autocomplete="off"
              aria-describedby="gap-faults"
              bind:value={part.gapBy[place]}
              oninput={touch}
            />
          </div>
        {/each}
      {:else}
        <div class="open">
          <button type="button" class="link text-note" id="gap-by-place" onclick={() => (opened = part.key)}
            >Gap by place</button
          >
        </div>
      {/if}
      {#if part.count.trim() !== '1'}
        <div>
          <label class="text-soft text-small block whitespace-nowrap" for="piles">Piles, where flat</label>
          <input
            id="piles"
            class="field figure px-2 py-0"
            inputmode="numeric"
            maxlength="3"
            autocomplete="off"
            bind:value={part.piles}
            oninput={touch}
          />
        </div>
        <div>
          <label class="text-soft text-small block whitespace-nowrap" for="sleeve-holds">A sleeve holds</label
          >
          <input
            id="sleeve-holds"
            class="field figure px-2 py-0"
            inputmode="numeric"
            maxlength="3"
            autocomplete="off"
            bind:value={part.sleeveHolds}
            oninput={touch}
          />
        </div>
      {/if}
    </div>
    {#if view?.cushion && !faults.some((fault) => fault.sentence)}
      <p class="checked text-note min-h-10" class:short={!view.cushion.enough}>
        <Why of="this cushion" why={view.cushion.why}>{view.cushion.says}</Why>
      </p>
    {:else}
      <Faults
        id="gap-faults"
        hint="Fragility it is gives the usual gap, and the cushion check beside it."
        {faults}
      />
    {/if}
    <MayLie {desk} {part} />
    {#if view?.piles?.length}
      <p class="piles text-note">
        {view.piles.length === 1 ? 'One pile of' : `${view.piles.length} piles:`}
        <span class="figure">{view.piles.join(', ')}</span>
      </p>
    {/if}
    {#if view?.says?.length}
      <ul class="says text-note">
        {#each [...new Set(view.says)] as said (said)}<li class="border-l-hair2 border-l-2 py-0.5 pr-0 pl-3">
            {said}
          </li>{/each}
      </ul>
    {/if}
    <WrapSheet {desk} />
    <div class="max-desk:block hidden">
      {#if desk.kind}<Known code={desk.kind} of="protecting" />{/if}
    </div>
  </section>
</div>

<style>
  .short {
    color: var(--amber);
    font-weight: 600;
  }

  .fields {
    display: grid;
    grid-template-columns: 250px repeat(3, minmax(0, 1fr));
    gap: 10px;
    margin-top: 14px;
  }

  .fields input::placeholder {
    color: var(--soft);
    font-weight: 400;
    opacity: 1;
  }
  #add-layer {
    margin-top: 10px;
  }

  @media (max-width: 1120px) {
    .fields {
      grid-template-columns: repeat(2, minmax(0, 1fr));
    }
  }
</style>
