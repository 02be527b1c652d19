<script lang="ts">
  // The charges of a service in the order in which they are made: moved, taken away, added by their kind.
  import Choose from '../../lib/ui/Choose.svelte';
  import { written } from '../../lib/written';
  import Entry from './Entry.svelte';
  import Surcharge from './Surcharge.svelte';
  import type { Json, JsonObject, Node, Schema } from './schema';

  interface Props {
    schema: Schema;
    /** As they stand in the tariff; they are changed in place. */
    charges: Json[];
    kinds: Record<string, Node>;
    path: string;
    wrong: (path: string) => boolean;
    touch: () => void;
    table?: ((path: string) => { out: string; read: (text: string) => void } | null) | undefined;
  }
  let { schema, charges, kinds, path, wrong, touch, table }: Props = $props();

  let kind = $state('');
  /** The columns of the first table: what a price by zone is for. */
  const zones = $derived.by(() => {
    const table = charges.find((item) => Array.isArray((item as JsonObject).rows)) as JsonObject | undefined;
    return Array.isArray(table?.zones) ? table.zones.map(written) : [];
  });

  function titled(item: Json): string {
    const of = item as JsonObject;
    const kind = written(of.kind);
    return `${kinds[kind]?.title ?? kind}${of.what ? `: ${written(of.what)}` : ''}`;
  }
  function move(n: number, by: number): void {
    const [item] = charges.splice(n, 1);
    if (item !== undefined) charges.splice(n + by, 0, item);
    touch();
  }
  function drop(n: number): void {
    charges.splice(n, 1);
    touch();
  }
  function add(): void {
    const of = kinds[kind];
    if (of) charges.push(schema.fresh(of));
    kind = '';
    touch();
  }
</script>

<div class="w-full min-w-0">
  {#each charges as item, n (item)}
    {@const of = kinds[written((item as JsonObject).kind)]}
    {#if of}
      <fieldset class="border-t-hair2 mt-2.5 min-w-0 border-t px-0 pt-0.5 pb-2">
        <legend class="font-title pr-2.5">{n + 1}. {titled(item)}</legend>
        <div class="moves text-note flex w-full min-w-0 gap-3.5">
          <button type="button" class="link" disabled={n === 0} onclick={() => move(n, -1)}
            >Move up<span class="sr-only">, charge {n + 1}</span></button
          >
          <button type="button" class="link" disabled={n === charges.length - 1} onclick={() => move(n, 1)}
            >Move down<span class="sr-only">, charge {n + 1}</span></button
          >
          <button type="button" class="link" onclick={() => drop(n)}
            >Remove<span class="sr-only"> charge {n + 1}</span></button
          >
        </div>
        {#if written((item as JsonObject).kind) === 'surcharge'}
          <Surcharge
            {schema}
            node={of}
            charge={item as JsonObject}
            path="{path}[{n}]"
            {zones}
            {wrong}
            {touch}
          />
        {:else}<Entry
            {schema}
            node={of}
            owner={charges}
            name={n}
            path="{path}[{n}]"
            label="charge {n + 1}"
            {wrong}
            {touch}
            {table}
            without={['kind']}
            open
          />{/if}
      </fieldset>
    {/if}
  {/each}
  <div class="add mt-2.5 w-42">
    <Choose
      label="Add a charge"
      bind:value={kind}
      change={add}
      options={[
        ['', 'of a kind…'],
        ...Object.entries(kinds).map(([code, of]) => [code, of.title ?? code] as const),
      ]}
    />
  </div>
</div>
