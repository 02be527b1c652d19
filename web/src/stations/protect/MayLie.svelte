<script lang="ts">
  // How a part may lie in the box: which way up, what may lie over it, beside what, and with what.
  import type { JobDesk } from '../../job/job.svelte';
  import { blankLayer, type TypedPart } from '../../job/typed';
  import { shop, usualWrap } from '../../lib/shop.svelte';
  import LayerRow from './LayerRow.svelte';

  interface Props {
    desk: JobDesk;
    part: TypedPart;
  }
  let { desk, part }: Props = $props();

  const touch = () => desk.touch();
  const others = $derived([
    ...new Set(desk.typed.parts.filter((one) => one !== part && one.name.trim()).map((one) => one.name)),
  ]);
  const forms = $derived((shop.view?.forms ?? []).filter((one) => one.around_several).map((one) => one.form));
  const bundle = $derived(part.bundle.trim());
  const around = $derived(bundle ? (desk.typed.bundles[bundle] ?? []) : []);

  function addAround(): void {
    desk.typed.bundles[bundle] = [...around, blankLayer(usualWrap())];
    touch();
  }
  function dropAround(k: number): void {
    desk.typed.bundles[bundle] = around.filter((_, n) => n !== k);
    touch();
  }
  const aroundProblem = (k: number) =>
    desk.work.view?.problems.find((one) => one.field.startsWith(`bundles.${bundle}[${k}]`))?.sentence ?? '';

  const wrong = $derived(
    desk.work.problem(`parts[${desk.parts.chosen}].rules.bears`) ||
      desk.work.problem(`parts[${desk.parts.chosen}].rules.cushion_for`),
  );
</script>

<div class="rules">
  <label><input type="checkbox" bind:checked={part.thisSideUp} onchange={touch} />this side up</label>
  <label><input type="checkbox" bind:checked={part.keepFlat} onchange={touch} />keep flat</label>
  <label><input type="checkbox" bind:checked={part.noLoadOnTop} onchange={touch} />nothing on top</label>
  <label><input type="checkbox" bind:checked={part.hardEdges} onchange={touch} />hard edges</label>
</div>
<div class="rules said">
  <label for="bears"
    >max load on top
    <input
      id="bears"
      class="field"
      data-measure="mass"
      bind:value={part.bears}
      oninput={touch}
      placeholder="any"
      disabled={part.noLoadOnTop}
      aria-invalid={wrong ? 'true' : undefined}
    /></label
  >
  <label for="bundle"
    >bundle with
    <input
      id="bundle"
      class="field"
      bind:value={part.bundle}
      oninput={touch}
      maxlength="60"
      placeholder="none"
    /></label
  >
  <label for="apart"
    >keep apart from
    <input
      id="apart"
      class="field"
      bind:value={part.apartFrom}
      oninput={touch}
      placeholder="names, with commas"
    /></label
  >
  <label for="not-with"
    >separate parcel from
    <input
      id="not-with"
      class="field"
      bind:value={part.notWith}
      oninput={touch}
      placeholder="names, with commas"
    /></label
  >
  <label for="cushion-for"
    >in front of and behind
    <select id="cushion-for" class="field" bind:value={part.cushionFor} onchange={touch}>
      <option value="">no other part</option>
      {#each others as name (name)}<option value={name}>{name}</option>{/each}
    </select></label
  >
</div>
{#if bundle}
  <div class="around" role="group" aria-label="Around all of {bundle}">
    <p>Around all of <b>{bundle}</b>, held together</p>
    {#each around as layer, k (k)}
      <LayerRow
        id="around-{k}"
        bind:layer={() => layer, (changed) => (around[k] = changed)}
        {forms}
        problem={aroundProblem(k)}
        {touch}
        remove={() => dropAround(k)}
      />
    {/each}
    <button type="button" class="link" id="add-around" onclick={addAround}>Add a layer around them</button>
  </div>
{/if}
{#if wrong}<p class="no">
    {wrong}
  </p>{/if}

<style>
  .rules {
    display: flex;
    gap: 18px;
    margin: 6px 0;
    font-size: 14.5px;
  }
  .rules label {
    display: flex;
    gap: 7px;
    align-items: center;
  }
  .rules input {
    width: 17px;
    height: 17px;
    accent-color: var(--twine);
  }
  .rules.said {
    display: grid;
    grid-template-columns: 120px 1fr 1.2fr 1.2fr;
    gap: 8px 12px;
    color: var(--soft);
  }
  .rules.said label {
    display: block;
    font-size: 13.5px;
  }
  .rules .field {
    width: 100%;
    height: 34px;
    color: var(--ink);
  }
  .around {
    margin: 4px 0 8px;
    padding-left: 12px;
    border-left: 2px solid var(--hair2);
    font-size: 14px;
  }
  .no {
    color: var(--stop);
  }
</style>
