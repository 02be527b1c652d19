<script lang="ts">
  // The thing itself: its sides as it will stand, its weight, and the gap to be kept free around it.
  import type { JobDesk } from '../../job/job.svelte';
  import { shop } from '../../lib/shop.svelte';
  import Faults from '../../lib/ui/Faults.svelte';
  import Field from '../../lib/ui/Field.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const HINT = `Wrapped, at its widest, as it will stand. 10 1/2, 5' 3", 26.7 cm, 4 lb 6 oz are all read.`;
  const shape = 'parts[0].shape';
  const touch = () => desk.touch();
  const usualGap = $derived(shop.view ? String(shop.view.shop.gap).replace(` ${shop.units}`, '') : '');
  /** What every measure of the thing has in common. */
  const measure = (path: string) => ({
    large: true,
    measure: true,
    oninput: touch,
    problem: desk.problem(path),
    read: desk.read(path),
    faults: 'sides-faults',
  });
</script>

<section class="thing">
  <Field
    id="name"
    label="What it is"
    note={false}
    bind:value={desk.typed.name}
    oninput={touch}
    placeholder="table loom, folded"
  />
  <div class="sides">
    <Field
      id="length"
      label="Length, {shop.units}"
      {...measure(`${shape}.length`)}
      bind:value={desk.typed.length}
    />
    <Field
      id="width"
      label="Width, {shop.units}"
      {...measure(`${shape}.width`)}
      bind:value={desk.typed.width}
    />
    <Field
      id="height"
      label="Height, {shop.units}"
      {...measure(`${shape}.height`)}
      bind:value={desk.typed.height}
    />
    <Field
      id="weight"
      label="Weight, {shop.massUnit}"
      {...measure('parts[0].weight')}
      bind:value={desk.typed.weight}
    />
    <Field
      id="gap"
      label="Gap, {shop.units}"
      {...measure('parts[0].gap')}
      bind:value={desk.typed.gap}
      placeholder={usualGap}
    />
  </div>
  <Faults
    id="sides-faults"
    hint={HINT}
    faults={[
      { field: 'length', label: 'Length', sentence: desk.problem(`${shape}.length`) },
      { field: 'width', label: 'Width', sentence: desk.problem(`${shape}.width`) },
      { field: 'height', label: 'Height', sentence: desk.problem(`${shape}.height`) },
      { field: 'weight', label: 'Weight', sentence: desk.problem('parts[0].weight') },
      { field: 'gap', label: 'Gap', sentence: desk.problem('parts[0].gap') },
    ]}
  />
</section>

<style>
  .thing {
    display: grid;
    gap: 10px;
  }
  .sides {
    display: grid;
    grid-template-columns: repeat(3, minmax(0, 1fr)) minmax(0, 1.3fr) minmax(0, 0.95fr);
    gap: 10px;
  }
  @media (max-width: 620px) {
    .sides {
      grid-template-columns: repeat(2, minmax(0, 1fr));
    }
  }
</style>
