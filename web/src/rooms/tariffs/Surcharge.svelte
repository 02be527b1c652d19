<script lang="ts">
  // A surcharge as a sentence one fills in: its name on the bill, what it comes to, and when it is charged.
  import Choose from '../../lib/ui/Choose.svelte';
  import { written } from '../../lib/written';
  import Conditions from './Conditions.svelte';
  import Entry from './Entry.svelte';
  import type { JsonObject, Node, Schema } from './schema';

  interface Props {
    schema: Schema;
    node: Node;
    charge: JsonObject;
    path: string;
    /** Of the table before it: what a price by zone has a field for. */
    zones: string[];
    wrong: (path: string) => boolean;
    touch: () => void;
  }
  let { schema, node, charge, path, zones, wrong, touch }: Props = $props();

  const MORE = ['why', 'code', 'group', 'for_all'];
  const fields = $derived(schema.resolve(node).properties ?? {});
  const prices = $derived(Array.isArray(charge.prices) ? charge.prices : []);
  const columns = $derived(Array.isArray(charge.zones) ? charge.zones.map(written) : []);
  const how = $derived(
    charge.prices === null || charge.prices === undefined ? 'percent' : columns.length ? 'zones' : 'one',
  );

  function comes(to: string): void {
    if (to === how) return;
    const first = prices[0] ?? '0.00';
    charge.percent = to === 'percent' ? '0' : null;
    charge.zones = to === 'zones' ? [...zones] : [];
    charge.prices =
      to === 'percent' ? null : to === 'zones' ? zones.map((_, n) => prices[n] ?? first) : [first];
    touch();
  }
  function put(n: number, price: string): void {
    prices[n] = price;
    touch();
  }
</script>

{#snippet field(name: string, label?: string)}
  {@const of = fields[name]}
  {#if of}
    <Entry
      {schema}
      node={of}
      owner={charge}
      {name}
      path="{path}.{name}"
      label={label ?? schema.called(name, of)}
      {wrong}
      {touch}
    />
  {/if}
{/snippet}

<div class="grid grid-cols-[minmax(0,1fr)] gap-1">
  <div class="flex flex-wrap items-end gap-x-3 gap-y-1.5">
    <span class="self-center font-medium">Charge</span>
    {@render field('what')}
    <span class="self-center">of</span>
    <div class="w-42">
      <Choose
        id="t-{path}.how"
        label="amount"
        value={how}
        change={comes}
        options={[
          ['one', 'one price'],
          ...(zones.length > 1 || how === 'zones' ? [['zones', 'a price by zone'] as const] : []),
          ['percent', 'per cent of other lines'],
        ]}
      />
    </div>
    {#if how === 'percent'}
      {@render field('percent', 'per cent')}
      {@render field('on', 'of the lines')}
    {:else}
      {#each prices as price, n (n)}
        <label class="text-soft text-small block w-22"
          >{how === 'zones' ? `zone ${columns[n] ?? ''}` : 'price'}
          <input
            id="t-{path}.prices[{n}]"
            class="field figure text-ink h-8.5"
            inputmode="decimal"
            aria-invalid={wrong(`${path}.prices[${n}]`)}
            value={written(price)}
            oninput={(event) => put(n, event.currentTarget.value)}
          /></label
        >
      {/each}
    {/if}
  </div>
  {#each [['when', 'if', 'any parcel'], ['unless', 'but not if', 'no exception']] as const as [name, label, none] (name)}
    {@const of = fields[name]}
    {#if of}
      {@const look = schema.look(of)}
      {#if look.as === 'group'}
        <Conditions
          {schema}
          node={look.of}
          owner={charge}
          {name}
          path="{path}.{name}"
          {label}
          {none}
          {wrong}
          {touch}
        />
      {/if}
    {/if}
  {/each}
  <details>
    <summary class="text-soft text-note cursor-pointer">More about this charge</summary>
    <div class="mx-0 my-1 flex flex-wrap items-start gap-x-3.5 gap-y-1.5">
      {#each MORE as name (name)}{@render field(name)}{/each}
    </div>
  </details>
</div>
