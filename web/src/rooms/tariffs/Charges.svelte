<script lang="ts">
  // The charges of a service in the order in which they are made: moved, taken away, added by their kind.
  import { written } from '../../lib/written';
  import Entry from './Entry.svelte';
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

  function titled(item: Json): string {
    const of = item as JsonObject;
    return `${written(of.kind)}${of.what ? `: ${written(of.what)}` : ''}`;
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

<div>
  {#each charges as item, n (n)}
    {@const of = kinds[written((item as JsonObject).kind)]}
    {#if of}
      <fieldset>
        <legend>{n + 1}. {titled(item)}</legend>
        <div class="moves">
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
        <Entry
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
        />
      </fieldset>
    {/if}
  {/each}
  <label class="add"
    ><span>Add a charge</span>
    <select class="field" bind:value={kind} onchange={add}>
      <option value="">of a kind…</option>
      {#each Object.keys(kinds) as one (one)}<option>{one}</option>{/each}
    </select></label
  >
</div>

<style>
  div {
    width: 100%;
    min-width: 0;
  }
  fieldset {
    border-top: 1px solid var(--hair2);
    padding: 2px 0 8px;
    margin-top: 10px;
    min-width: 0;
  }
  legend {
    font-weight: 650;
    padding-right: 10px;
  }
  .moves {
    display: flex;
    gap: 14px;
    font-size: 14px;
  }
  .add {
    display: block;
    width: 168px;
    margin-top: 10px;
    font-size: 13.5px;
    color: var(--soft);
  }
  .add .field {
    height: 34px;
    color: var(--ink);
  }
</style>
