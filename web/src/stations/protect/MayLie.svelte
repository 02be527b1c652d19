<script lang="ts">
  // How a part may lie in the box: which way up, what may lie over it, beside what, and with what.
  import Choose from '../../lib/ui/Choose.svelte';
  import type { JobDesk } from '../../job/job.svelte';
  import { blankLayer, type TypedPart } from '../../job/typed';
  import { shop, usualWrap } from '../../lib/shop.svelte';
  import LayerRow from './LayerRow.svelte';
  import Tick from '../../lib/ui/Tick.svelte';
  import Field from '../../lib/ui/Field.svelte';

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

  const NAMED = [
    { id: 'bundle', label: 'Bundle with', of: 'bundle', most: 60, hint: 'none' },
    { id: 'apart', label: 'Keep apart from', of: 'apartFrom', most: 400, hint: 'names, with commas' },
    { id: 'not-with', label: 'Separate parcel from', of: 'notWith', most: 400, hint: 'names, with commas' },
  ] as const;
</script>

<div class="rules text-note mx-0 my-1.5 flex gap-4.5">
  <Tick bind:checked={part.thisSideUp} change={touch}>this side up</Tick>
  <Tick bind:checked={part.keepFlat} change={touch}>keep flat</Tick>
  <Tick bind:checked={part.noLoadOnTop} change={touch}>nothing on top</Tick>
  <Tick bind:checked={part.hardEdges} change={touch}>hard edges</Tick>
</div>
<div
  class="rules said text-soft text-note mx-0 my-1.5 grid grid-cols-[120px_1fr_1.2fr_1.2fr] gap-x-3 gap-y-2"
>
  <Field
    id="bears"
    label="Max load on top"
    takes="mass"
    note={false}
    bind:value={part.bears}
    oninput={touch}
    placeholder="any"
    disabled={part.noLoadOnTop}
    problem={wrong}
  />
  {#each NAMED as one (one.id)}
    <Field
      id={one.id}
      label={one.label}
      note={false}
      most={one.most}
      bind:value={part[one.of]}
      oninput={touch}
      placeholder={one.hint}
    />
  {/each}
  <Choose
    id="cushion-for"
    label="In front of and behind"
    bind:value={part.cushionFor}
    change={touch}
    options={[['', 'no other part'], ...others]}
  />
</div>
{#if bundle}
  <div
    class="border-l-hair2 text-note mx-0 mt-1 mb-2 border-l-2 pl-3"
    role="group"
    aria-label="Around all of {bundle}"
  >
    <p>Around all of <b>{bundle}</b>, held together</p>
    {#each around as layer, k (layer)}
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
