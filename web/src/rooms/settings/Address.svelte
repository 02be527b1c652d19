<script lang="ts">
  // Name, place and addresses of the shop.
  import Field from '../../lib/ui/Field.svelte';
  import type { ListProps } from './words';

  let { d = $bindable(), wrong, touched }: ListProps = $props();

  const LINES = [
    ['address', 'Address above the town'],
    ['return_address', 'Return address, where it is another'],
  ] as const;
</script>

<Field id="shop-name" label="Name" note={false} bind:value={d.name} oninput={touched} />
<Field id="shop-town" label="Town" note={false} bind:value={d.town} oninput={touched} />
<Field
  id="shop-postcode"
  label="Postcode parcels leave from"
  note={false}
  bind:value={d.postcode}
  oninput={touched}
  problem={wrong('postcode')}
/>
{#each LINES as [name, label] (name)}
  <div>
    <label class="text-soft text-small mb-0.5 block" for="shop-{name}">{label}</label>
    <textarea
      id="shop-{name}"
      class="field h-auto w-full py-1.5"
      rows="3"
      maxlength="300"
      bind:value={() => d[name] ?? '', (v) => (d[name] = v)}
      oninput={touched}></textarea>
  </div>
{/each}
