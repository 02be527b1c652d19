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

<div class="rules text-note mx-0 my-1.5 flex gap-4.5">
  <label class="flex items-center gap-1.75"
    ><input
      class="accent-twine h-4.25 w-4.25"
      type="checkbox"
      bind:checked={part.thisSideUp}
      onchange={touch}
    />this side up</label
  >
  <label class="flex items-center gap-1.75"
    ><input
      class="accent-twine h-4.25 w-4.25"
      type="checkbox"
      bind:checked={part.keepFlat}
      onchange={touch}
    />keep flat</label
  >
  <label class="flex items-center gap-1.75"
    ><input
      class="accent-twine h-4.25 w-4.25"
      type="checkbox"
      bind:checked={part.noLoadOnTop}
      onchange={touch}
    />nothing on top</label
  >
  <label class="flex items-center gap-1.75"
    ><input
      class="accent-twine h-4.25 w-4.25"
      type="checkbox"
      bind:checked={part.hardEdges}
      onchange={touch}
    />hard edges</label
  >
</div>
<div
  class="rules said text-soft text-note mx-0 my-1.5 grid grid-cols-[120px_1fr_1.2fr_1.2fr] gap-x-3 gap-y-2"
>
  <label class="text-small block items-center gap-1.75" for="bears"
    >max load on top
    <input
      id="bears"
      class="field accent-twine text-ink h-8.5 w-full"
      data-measure="mass"
      bind:value={part.bears}
      oninput={touch}
      placeholder="any"
      disabled={part.noLoadOnTop}
      aria-invalid={wrong ? 'true' : undefined}
    /></label
  >
  <label class="text-small block items-center gap-1.75" for="bundle"
    >bundle with
    <input
      id="bundle"
      class="field accent-twine text-ink h-8.5 w-full"
      bind:value={part.bundle}
      oninput={touch}
      maxlength="60"
      placeholder="none"
    /></label
  >
  <label class="text-small block items-center gap-1.75" for="apart"
    >keep apart from
    <input
      id="apart"
      class="field accent-twine text-ink h-8.5 w-full"
      bind:value={part.apartFrom}
      oninput={touch}
      placeholder="names, with commas"
    /></label
  >
  <label class="text-small block items-center gap-1.75" for="not-with"
    >separate parcel from
    <input
      id="not-with"
      class="field accent-twine text-ink h-8.5 w-full"
      bind:value={part.notWith}
      oninput={touch}
      placeholder="names, with commas"
    /></label
  >
  <label class="text-small block items-center gap-1.75" for="cushion-for"
    >in front of and behind
    <select
      id="cushion-for"
      class="field text-ink h-8.5 w-full"
      bind:value={part.cushionFor}
      onchange={touch}
    >
      <option value="">no other part</option>
      {#each others as name (name)}<option value={name}>{name}</option>{/each}
    </select></label
  >
</div>
{#if bundle}
  <div
    class="border-l-hair2 text-note mx-0 mt-1 mb-2 border-l-2 pl-3"
    role="group"
    aria-label="Around all of {bundle}"
  >
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
{#if wrong}<p class="no text-stop">
    {wrong}
  </p>{/if}
