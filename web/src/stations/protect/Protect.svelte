<script lang="ts">
  // Protect: each part with its layers from the goods outward, its gap and how fragile it is; what all of it takes.
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
  const n = $derived(Math.min(desk.parts.chosen, desk.typed.parts.length - 1));
  const part = $derived(desk.parts.inHand);
  const view = $derived(desk.work.view?.parts[n]);
  const fragilities = $derived(shop.view?.fragilities ?? []);
  const ownFragility = $derived(
    part.fragility && !fragilities.some((one) => one.value === part.fragility) ? part.fragility : '',
  );

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

<div class="protect">
  <section class="list" aria-label="Parts to wrap">
    <!-- Up and down go from part to part. -->
    <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
    <ul onkeydown={moved}>
      {#each desk.typed.parts as one, k (one.key)}
        {@const seen = desk.work.view?.parts[k]}
        <li>
          <button
            type="button"
            id="wrap-{k}"
            aria-pressed={k === n}
            tabindex={k === n ? 0 : -1}
            onclick={() => (desk.parts.chosen = k)}
          >
            <span class="name"
              >{nameOf(one, k)}{#if one.count !== '1'}&ensp;<span class="soft">× {one.count}</span>{/if}</span
            >
            <span class="size figure">
              {#if seen?.wrapped}<Measured text={seen.wrapped.text} />{:else}<span class="soft"
                  >not measured</span
                >{/if}
            </span>
            <span class="with">{layersOf(one)}</span>
            {#if seen?.cushion}
              <span class="check" class:short={!seen.cushion.enough}
                >{seen.cushion.enough ? 'cushion OK' : `needs ${seen.cushion.asks}`}</span
              >
            {/if}
          </button>
        </li>
      {/each}
    </ul>
    {#if desk.kind}<Known code={desk.kind} of="protecting" />{/if}
  </section>

  <section class="edit" aria-label="Layers of {nameOf(part, n)}">
    <div class="head">
      <h2>{nameOf(part, n)}, from the goods outward</h2>
      {#if desk.typed.parts.length > 1}
        <button type="button" class="link" onclick={likeThis}>Wrap all like this</button>
      {/if}
    </div>
    <p class="grown">
      {#if view?.bare && view.wrapped}
        <span class="soft">bare</span> <span class="figure"><Measured text={view.bare.figure.text} /></span>
        <span class="soft">wrapped</span>
        <b class="figure"
          ><Why of="this wrapped size" why={view.wrapped.why}><Measured text={view.wrapped.text} /></Why></b
        >
        <span class="soft">{view.weight}</span>
      {:else}
        <span class="soft">It grows here as soon as it is measured.</span>
      {/if}
    </p>
    {#each part.protect as layer, k (k)}
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
        <label for="fragility">Fragility</label>
        <select id="fragility" class="field" bind:value={part.fragility} onchange={touch}>
          <option value="">not said</option>
          {#each fragilities as one (one.value)}<option value={one.value}>{one.says}</option>{/each}
          {#if ownFragility}<option value={ownFragility}>{ownFragility}</option>{/if}
        </select>
      </div>
      <div>
        <label for="gap">{byPlace ? 'Gap to walls' : 'Gap all round'}, {shop.units}</label>
        <input
          id="gap"
          class="field figure"
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
            <label for="gap-{place}">{PLACE_LABELS[place]}</label>
            <input
              id="gap-{place}"
              class="field figure"
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
          <button type="button" class="link" id="gap-by-place" onclick={() => (opened = part.key)}
            >Gap by place</button
          >
        </div>
      {/if}
      {#if part.count.trim() !== '1'}
        <div>
          <label for="piles">Piles, where flat</label>
          <input
            id="piles"
            class="field figure"
            inputmode="numeric"
            maxlength="3"
            autocomplete="off"
            bind:value={part.piles}
            oninput={touch}
          />
        </div>
        <div>
          <label for="sleeve-holds">A sleeve holds</label>
          <input
            id="sleeve-holds"
            class="field figure"
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
      <p class="checked" class:short={!view.cushion.enough}>
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
      <p class="piles">
        {view.piles.length === 1 ? 'One pile of' : `${view.piles.length} piles:`}
        <span class="figure">{view.piles.join(', ')}</span>
      </p>
    {/if}
    {#if view?.says?.length}
      <ul class="says">
        {#each [...new Set(view.says)] as said (said)}<li>{said}</li>{/each}
      </ul>
    {/if}
    <WrapSheet {desk} />
  </section>
</div>

<style>
  .protect {
    display: grid;
    grid-template-columns: 310px minmax(0, 1fr);
    gap: 20px;
    align-items: start;
  }
  .list {
    display: grid;
    gap: 16px;
  }
  .list button {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 10px;
    width: 100%;
    padding: 8px 10px;
    text-align: left;
    border-left: 3px solid transparent;
    border-bottom: 1px solid var(--hair);
  }
  .list button[aria-pressed='true'] {
    border-left-color: var(--twine);
    background: color-mix(in srgb, var(--twine-pale) 60%, transparent);
  }
  .name {
    font-weight: 600;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .size {
    font-size: 14px;
    white-space: nowrap;
  }
  .with {
    font-size: 13.5px;
    color: var(--soft);
  }
  .check {
    font-size: 13px;
    color: var(--soft);
    text-align: right;
  }
  .short {
    color: var(--amber);
    font-weight: 600;
  }
  .head {
    display: flex;
    justify-content: space-between;
    gap: 12px;
  }
  .head h2 {
    color: var(--ink);
    font-size: 15.5px;
  }
  .link,
  .checked,
  .says,
  .piles {
    font-size: 14px;
  }
  .grown {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 4px 10px;
    min-height: 34px;
    font-size: 17px;
  }
  .checked {
    min-height: 40px;
  }
  .soft {
    color: var(--soft);
    font-size: 14px;
  }
  .fields {
    display: grid;
    grid-template-columns: 250px repeat(3, minmax(0, 1fr));
    gap: 10px;
    margin-top: 14px;
  }
  .fields label {
    display: block;
    font-size: 13.5px;
    color: var(--soft);
    white-space: nowrap;
  }
  .fields .field {
    padding: 0 8px;
  }
  .fields input::placeholder {
    color: var(--soft);
    font-weight: 400;
    opacity: 1;
  }
  #add-layer {
    margin-top: 10px;
  }
  .says li {
    padding: 2px 0 2px 12px;
    border-left: 2px solid var(--hair2);
  }
  @media (max-width: 1100px) {
    .protect {
      grid-template-columns: minmax(0, 1fr);
    }
    .fields {
      grid-template-columns: repeat(2, minmax(0, 1fr));
    }
  }
</style>
