<script lang="ts">
  // Rows of things that have a name, a size and a weight, and a value where that is asked for. A row may be taken off and
  // brought back.
  import type { JobDesk } from '../../job/job.svelte';
  import type { ExtraPlace } from '../../job/typed';
  import { shop } from '../../lib/shop.svelte';
  import { toast } from '../../lib/toast.svelte';
  import Choose from '../../lib/ui/Choose.svelte';
  import Faults from '../../lib/ui/Faults.svelte';
  import Field from '../../lib/ui/Field.svelte';
  import Remove from '../../lib/ui/Remove.svelte';

  interface Row {
    name: string;
    size: string;
    weight: string;
    value?: string;
    liesFlat?: boolean | null;
    place?: ExtraPlace | null;
  }
  interface Props {
    desk: JobDesk;
    /** As they stand in the job; they are changed in place. */
    rows: Row[];
    /** The field of the job that they are, and what one of them is called. */
    field: 'extras' | 'beside';
    one: 'extra' | 'parcel';
    title: string;
    /** What a first row might say. */
    such: { name: string; size: string; weight: string };
    valued?: boolean;
    add: () => void;
  }
  let { desk, rows, field, one, title, such, valued = false, add }: Props = $props();

  const touch = () => desk.touch();
  const called = $derived(one === 'extra' ? 'extra' : 'parcel beside');

  function remove(n: number): void {
    const [gone] = rows.splice(n, 1);
    if (!gone) return;
    touch();
    toast.show(`${gone.name || `The ${called}`} is removed.`, () => {
      rows.splice(n, 0, gone);
      touch();
    });
  }

  const PLACES: readonly (readonly [ExtraPlace, string])[] = [
    ['beside', 'beside'],
    ['on top', 'on top'],
    ['inside the wrap', 'in the wrap'],
    ['outside', 'outside'],
  ];
  /** Where it goes: as said, else as the shop takes it by its thickness. */
  const placeOf = (row: Row): ExtraPlace =>
    row.place ?? ((row.liesFlat ?? desk.work.view?.last_in.includes(row.name)) ? 'on top' : 'beside');

  const faultsOf = (n: number) =>
    [
      { field: `${one}-${n}-size`, label: 'Size', sentence: desk.work.problem(`${field}[${n}].size`) },
      { field: `${one}-${n}-weight`, label: 'Weight', sentence: desk.work.problem(`${field}[${n}].weight`) },
      { field: `${one}-${n}-value`, label: 'Value', sentence: desk.work.problem(`${field}[${n}].value`) },
    ].map((fault) => ({ ...fault, label: `${fault.label} of ${rows[n]?.name || `${called} ${n + 1}`}` }));
</script>

<section class="rows grid justify-items-start gap-1.5" class:valued class:flat={one === 'extra'}>
  <h2>{title}</h2>
  {#if rows.length}
    <div
      class="row heads text-soft max-phone:hidden max-phone:grid-cols-[minmax(0,1fr)_minmax(0,1.2fr)_34px] text-small grid w-full grid-cols-[minmax(0,1.3fr)_minmax(0,1.2fr)_110px_34px] gap-2"
      aria-hidden="true"
    >
      <span>{one === 'extra' ? 'Extra' : 'Parcel'}</span><span
        >{one === 'extra' ? 'Size' : 'Outside size'}, {shop.units}</span
      ><span>Weight, {shop.massUnit}</span>{#if valued}<span>Its value</span>{:else}<span>Place</span>{/if}
    </div>
  {/if}
  {#each rows as row, n (row)}
    {@const found = faultsOf(n)}
    {@const faults = found.some((fault) => fault.sentence) ? `${one}-${n}-faults` : ''}
    <div
      class="row max-phone:grid-cols-[minmax(0,1fr)_minmax(0,1.2fr)_34px] grid w-full grid-cols-[minmax(0,1.3fr)_minmax(0,1.2fr)_110px_34px] gap-2"
    >
      <Field
        id="{one}-{n}-name"
        label="{called[0]?.toUpperCase()}{called.slice(1)} {n + 1}"
        hideLabel
        note={false}
        bind:value={row.name}
        oninput={touch}
        placeholder={such.name}
      />
      <Field
        id="{one}-{n}-size"
        label="Size of {called} {n + 1}"
        hideLabel
        measure
        note={false}
        bind:value={row.size}
        oninput={touch}
        placeholder={such.size}
        problem={found[0]?.sentence ?? ''}
        {faults}
      />
      <Field
        id="{one}-{n}-weight"
        label="Weight of {called} {n + 1}"
        hideLabel
        measure
        takes="mass"
        note={false}
        bind:value={row.weight}
        oninput={touch}
        placeholder={such.weight}
        problem={found[1]?.sentence ?? ''}
        {faults}
      />
      {#if valued}
        <Field
          id="{one}-{n}-value"
          label="Value of {called} {n + 1}"
          hideLabel
          measure
          note={false}
          bind:value={() => row.value ?? '', (said) => (row.value = said)}
          oninput={touch}
          placeholder="150.00"
          problem={found[2]?.sentence ?? ''}
          {faults}
        />
      {/if}
      {#if !valued}
        <Choose
          id="{one}-{n}-place"
          label="Place of {row.name || `extra ${n + 1}`}"
          labelled="unseen"
          options={PLACES}
          bind:value={() => placeOf(row), (picked) => (row.place = picked)}
          change={(picked) => {
            row.liesFlat = picked !== 'beside';
            touch();
          }}
        />
      {/if}
      <Remove of={row.name || `${called} ${n + 1}`} go={() => remove(n)} />
      {#if faults}<div class="col-span-full"><Faults id={faults} faults={found} /></div>{/if}
    </div>
  {/each}
  <button type="button" class="btn add" id="add-{one}" onclick={add}
    >{one === 'extra' ? 'Add an extra' : 'Add a parcel'}</button
  >
</section>

<style>
  .valued .row {
    grid-template-columns: minmax(0, 1.3fr) minmax(0, 1.2fr) 110px 100px 34px;
  }
  .flat .row {
    grid-template-columns: minmax(0, 1.6fr) minmax(0, 1fr) 84px 118px 34px;
  }

  @media (max-width: 700px) {
    .valued .row {
      grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr) 76px 34px;
    }
    .flat .row {
      grid-template-columns: minmax(0, 1.5fr) minmax(0, 1fr) 34px;
    }
    .row > :global(:first-child) {
      grid-column: 1 / -1;
    }
    .flat .row > :global(:nth-child(3)) {
      grid-column: 2 / -1;
    }
    .flat .row > :global(:nth-child(4)) {
      grid-column: 1 / span 2;
    }
  }
</style>
