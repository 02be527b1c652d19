<script lang="ts">
  // What must go in with it: bottle, booklet, card. Each line counts in the inside size and in the weight.
  import type { JobDesk } from '../../job/job.svelte';
  import { shop } from '../../lib/shop.svelte';
  import { toast } from '../../lib/toast.svelte';
  import Faults from '../../lib/ui/Faults.svelte';
  import Field from '../../lib/ui/Field.svelte';

  interface Props {
    desk: JobDesk;
    add: () => void;
  }
  let { desk, add }: Props = $props();

  const touch = () => desk.touch();

  function removeExtra(n: number): void {
    const [gone] = desk.typed.extras.splice(n, 1);
    if (!gone) return;
    touch();
    toast.show(`${gone.name || 'The extra'} is off the list.`, () => {
      desk.typed.extras.splice(n, 0, gone);
      touch();
    });
  }
</script>

<section class="extras">
  <h2>What must go in with it</h2>
  {#if desk.typed.extras.length}
    <div class="row heads" aria-hidden="true">
      <span>Extra</span><span>Size, {shop.units}</span><span>Weight, {shop.massUnit}</span>
    </div>
  {/if}
  {#each desk.typed.extras as extra, n (extra)}
    {@const size = desk.problem(`extras[${n}].size`)}
    {@const weight = desk.problem(`extras[${n}].weight`)}
    {@const faults = size || weight ? `extra-${n}-faults` : ''}
    <div class="row">
      <Field
        id="extra-{n}-name"
        label="Extra {n + 1}"
        hideLabel
        note={false}
        bind:value={extra.name}
        oninput={touch}
        placeholder="oil bottle"
      />
      <Field
        id="extra-{n}-size"
        label="Size of extra {n + 1}"
        hideLabel
        measure
        note={false}
        bind:value={extra.size}
        oninput={touch}
        placeholder="4 x 3 x 2"
        problem={size}
        {faults}
      />
      <Field
        id="extra-{n}-weight"
        label="Weight of extra {n + 1}"
        hideLabel
        measure
        takes="mass"
        note={false}
        bind:value={extra.weight}
        oninput={touch}
        placeholder="6 oz"
        problem={weight}
        {faults}
      />
      <button
        type="button"
        class="off"
        onclick={() => removeExtra(n)}
        aria-label="Take {extra.name || `extra ${n + 1}`} off the list">×</button
      >
      {#if faults}
        <div class="wide">
          <Faults
            id={faults}
            faults={[
              {
                field: `extra-${n}-size`,
                label: `Size of ${extra.name || `extra ${n + 1}`}`,
                sentence: size,
              },
              {
                field: `extra-${n}-weight`,
                label: `Weight of ${extra.name || `extra ${n + 1}`}`,
                sentence: weight,
              },
            ]}
          />
        </div>
      {/if}
    </div>
  {/each}
  <button type="button" class="btn add" id="add-extra" onclick={add}>Add an extra</button>
</section>

<style>
  .extras {
    display: grid;
    gap: 6px;
    justify-items: start;
  }
  .row {
    display: grid;
    grid-template-columns: minmax(0, 1.3fr) minmax(0, 1.2fr) 110px 34px;
    gap: 8px;
    width: 100%;
  }
  .heads {
    font-size: 13px;
    color: var(--soft);
  }
  .off {
    font-size: 21px;
    color: var(--soft);
  }
  .off:hover {
    color: var(--stop);
  }
  .wide {
    grid-column: 1 / -1;
  }
  @media (max-width: 620px) {
    .row {
      grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 34px;
    }
  }
</style>
