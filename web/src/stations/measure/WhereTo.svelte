<script lang="ts">
  // Where it goes, what it is worth, and when it leaves.
  import type { JobDesk } from '../../job/job.svelte';
  import { shop } from '../../lib/shop.svelte';
  import Faults from '../../lib/ui/Faults.svelte';
  import Field from '../../lib/ui/Field.svelte';
  import SoldOn from './SoldOn.svelte';
  import Tick from '../../lib/ui/Tick.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const touch = () => desk.touch();
</script>

<section class="sheet px-3.5 pt-2 pb-1" aria-label="Where it goes">
  <h2 class="sr-only">Where it goes</h2>
  <div class="max-phone:grid-cols-2 mb-1.5 grid grid-cols-5 gap-2.5">
    <Field
      id="to"
      label="Destination postcode"
      note={false}
      faults="ship-faults"
      bind:value={desk.typed.to}
      oninput={touch}
      placeholder="73120"
      problem={desk.work.problem('ship.to')}
    />
    <Field
      id="from"
      label="Origin postcode"
      note={false}
      faults="ship-faults"
      bind:value={desk.typed.from}
      oninput={touch}
      placeholder={shop.view?.shop.postcode ?? ''}
      problem={desk.work.problem('ship.from')}
    />
    <Field
      id="value"
      label="Declared value, {shop.view?.shop.currency ?? ''}"
      measure
      note={false}
      faults="ship-faults"
      bind:value={desk.typed.value}
      oninput={touch}
      placeholder="not declared"
      problem={desk.work.problem('value')}
    />
    <Field
      id="distance"
      label="Driving distance"
      measure
      note={false}
      faults="ship-faults"
      bind:value={desk.typed.distance}
      oninput={touch}
      placeholder={shop.units === 'in' ? '40 mi' : '65 km'}
      problem={desk.work.problem('ship.distance')}
    />
    <Field id="day" label="Ship date" type="date" note={false} bind:value={desk.typed.day} oninput={touch} />
  </div>
  <div class="flex flex-wrap gap-x-5.5">
    <Tick id="residential" bind:checked={desk.typed.residential} change={touch}>Residential address</Tick>
    <Tick id="signature" bind:checked={desk.typed.signature} change={touch}>Signature on delivery</Tick>
  </div>
  <Faults
    id="ship-faults"
    tight
    faults={[
      { field: 'to', label: 'Destination postcode', sentence: desk.work.problem('ship.to') },
      { field: 'from', label: 'Origin postcode', sentence: desk.work.problem('ship.from') },
      { field: 'value', label: 'Declared value', sentence: desk.work.problem('value') },
      { field: 'distance', label: 'Driving distance', sentence: desk.work.problem('ship.distance') },
    ]}
  />
  <SoldOn {desk} />
</section>
