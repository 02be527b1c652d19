<script lang="ts">
  // One value of a tariff, and whatever is in it: drawn from what the file's schema says of it.
  import Choose from '../../lib/ui/Choose.svelte';
  import { written } from '../../lib/written';
  import Charges from './Charges.svelte';
  import Conditions from './Conditions.svelte';
  import Self from './Entry.svelte';
  import PriceTable from './PriceTable.svelte';
  import { type Json, type JsonObject, type Node, type OnForm } from './schema';
  import Remove from '../../lib/ui/Remove.svelte';

  interface Props extends OnForm {
    /** Of a group: what is not shown in it. */
    without?: string[];
    /** Of a group: its own frame and heading are left out. */
    open?: boolean;
    /** The CSV of a table, where the charge is one that is kept. */
    table?: ((path: string) => { out: string; read: (text: string) => void } | null) | undefined;
  }
  let {
    schema, node, owner, name, path, label, wrong, touch, without = [], open = false, table,
  }: Props = $props(); // prettier-ignore

  const look = $derived(schema.look(node));
  const says = $derived(schema.says(node));
  const holder = $derived(owner as Record<string | number, Json>);
  const value = $derived(holder[name]);
  const id = $derived(`t-${path}`);

  function put(next: Json): void {
    holder[name] = next;
    touch();
  }
  const text = (given: Json | undefined) => written(given);
  const number = (typed: string): Json => (/^\d+$/.test(typed.trim()) ? Number(typed) : typed);
  const list = (given: Json | undefined) => (Array.isArray(given) ? given : []);
  const words = (typed: string): Json => typed.split(',').map((one) => one.trim()).filter(Boolean); // prettier-ignore

  /** The fields of an object, those of a table taken together. */
  const fields = $derived.by(() => {
    if (look.as !== 'group') return [];
    const every = Object.entries(look.of.properties ?? {});
    const tabled = every.some(([field, of]) => field === 'rows' && schema.look(of).as === 'table');
    // What matters most first: a table before the conditions of its charge, the charges after all else.
    const rank = (of: Node) => ({ table: -1, kinds: 1 })[schema.look(of).as as string] ?? 0;
    return every
      .filter(([field]) => !without.includes(field) && !(tabled && field === 'zones'))
      .sort(([, a], [, b]) => rank(a) - rank(b));
  });
  const small = (of: Node) =>
    ['text', 'date', 'whole', 'tick', 'one of', 'words', 'pair'].includes(schema.look(of).as);

  function tick(choice: string, on: boolean): void {
    const others = list(value).filter((one) => one !== choice);
    put(on ? [...others, choice] : others);
  }
  function dropAt(n: number): void {
    list(value).splice(n, 1);
    touch();
  }
  function addTo(of: Node): void {
    list(value).push(schema.fresh(of));
    touch();
  }
  /** A list as it is typed, with its commas, until the field is left. */
  let listed = $state<string | null>(null);
  let file = $state<HTMLInputElement>();
</script>

{#if look.as === 'text' || look.as === 'date' || look.as === 'whole' || look.as === 'words'}
  <label
    class="one text-soft text-small block w-42"
    class:long={look.as === 'words' || name === 'why' || name === 'what' || name === 'note'}
    ><span>{label}</span>
    <input
      {id}
      class="field text-ink h-8.5"
      type={look.as === 'date' ? 'date' : 'text'}
      aria-invalid={wrong(path)}
      title={says}
      value={look.as === 'words' ? (listed ?? list(value).map(written).join(', ')) : text(value)}
      onblur={() => (listed = null)}
      oninput={(event) => {
        const typed = event.currentTarget.value;
        if (look.as === 'words') {
          listed = typed;
          put(words(typed));
        } else if (look.as === 'whole') put(number(typed));
        else if (look.as === 'date') put(typed || null);
        else if (look.as === 'text') put(look.optional && !typed.trim() ? null : typed);
      }}
    />
    {#if says}<small class="text-fine block leading-[16px]">{says}</small>{/if}
  </label>
{:else if look.as === 'tick'}
  <label class="tick text-note flex min-h-7.5 max-w-87.5 items-start gap-2"
    ><input
      class="accent-twine h-4.5 w-4.5 flex-none"
      {id}
      type="checkbox"
      checked={value === true}
      onchange={(event) => put(event.currentTarget.checked)}
    />
    <span
      >{label}{#if says}<small class="text-soft text-fine block leading-[16px]">{says}</small>{/if}</span
    ></label
  >
{:else if look.as === 'one of'}
  <div class="one w-42">
    <Choose
      {id}
      {label}
      value={text(value)}
      change={(one) => put(one === '' ? null : one)}
      options={look.optional ? [['', '–'], ...look.choices] : look.choices}
    />
  </div>
{:else if look.as === 'several of'}
  <fieldset
    class="several border-t-hair2 mt-2.5 flex w-full min-w-0 flex-wrap gap-x-4.5 gap-y-0.5 border-t px-0 pt-0.5 pb-2"
    {id}
  >
    <legend class="font-title pr-2.5"
      >{label}{#if says}<small class="font-plain text-soft text-fine block leading-[16px]">{says}</small
        >{/if}</legend
    >
    {#each look.choices as choice (choice)}
      <label class="tick text-note flex min-h-7.5 max-w-87.5 items-start gap-2"
        ><input
          class="accent-twine h-4.5 w-4.5 flex-none"
          type="checkbox"
          checked={list(value).includes(choice)}
          onchange={(event) => tick(choice, event.currentTarget.checked)}
        /><span>{choice.replaceAll('-', ' ')}</span></label
      >
    {/each}
  </fieldset>
{:else if look.as === 'pair'}
  <span class="one pair text-soft text-small block w-32.5"
    ><span class="block">{label}</span>
    {#each [0, 1] as n (n)}
      <input
        id="{id}[{n}]"
        class="field figure text-ink h-8.5"
        aria-label="{label}, {n ? 'most' : 'least'}"
        aria-invalid={wrong(path) || wrong(`${path}[${n}]`)}
        value={text(list(value)[n])}
        oninput={(event) => {
          list(value)[n] = number(event.currentTarget.value);
          touch();
        }}
      />
    {/each}</span
  >
{:else if look.as === 'table'}
  {@const csv = table?.(path.slice(0, -'.rows'.length))}
  <div class="w-full min-w-0">
    <PriceTable of={owner as JsonObject} path={path.slice(0, -'.rows'.length)} {label} {wrong} {touch} />
    {#if csv}
      <span class="csv text-note flex gap-3.5">
        <a class="link" href={csv.out} download>Export table as CSV</a>
        <button type="button" class="link" onclick={() => file?.click()}>Import table from CSV</button>
        <input
          bind:this={file}
          type="file"
          accept=".csv,text/csv"
          hidden
          aria-label="Table as CSV"
          onchange={async ({ currentTarget: input }) => {
            const chosen = input.files?.[0];
            if (chosen) csv.read(await chosen.text());
            input.value = '';
          }}
        />
      </span>
    {/if}
  </div>
{:else if look.as === 'rows'}
  <fieldset class="border-t-hair2 mt-2.5 w-full min-w-0 border-t px-0 pt-0.5 pb-2">
    <legend class="font-title pr-2.5">{label}</legend>
    {#each { length: list(value).length }, n}
      <div class="row flex items-end gap-1.5" class:first={n === 0}>
        <Self
          {schema}
          node={look.of}
          owner={list(value)}
          name={n}
          path="{path}[{n}]"
          label="{label} {n + 1}"
          {wrong}
          {touch}
          open
        />
        <Remove of="{label} {n + 1}" go={() => dropAt(n)} />
      </div>
    {/each}
    <button type="button" class="link" onclick={() => addTo(look.of)}>Add a row</button>
  </fieldset>
{:else if look.as === 'kinds'}
  <Charges {schema} charges={list(value)} kinds={look.kinds} {path} {wrong} {touch} {table} />
{:else if look.as === 'group'}
  {#if look.of.title === 'conditions'}
    <Conditions
      {schema}
      node={look.of}
      {owner}
      {name}
      {path}
      {label}
      none={name === 'unless' ? 'no exception' : 'any parcel'}
      {wrong}
      {touch}
    />
  {:else if look.optional && !open}
    <fieldset class="border-t-hair2 mt-1 w-full min-w-0 border-t [border-top-style:dotted] px-0 pt-0.5 pb-2">
      <legend class="pr-2.5 font-medium"
        ><label class="tick text-note flex min-h-7.5 max-w-87.5 items-start gap-2"
          ><input
            class="accent-twine h-4.5 w-4.5 flex-none"
            {id}
            type="checkbox"
            checked={value !== null && value !== undefined}
            onchange={(event) => put(event.currentTarget.checked ? schema.fresh(look.of) : null)}
          />
          <span
            >{label}{#if says}<small class="font-plain text-soft text-fine block leading-[16px]">{says}</small
              >{/if}</span
          ></label
        ></legend
      >
      {#if value !== null && value !== undefined}
        <Self {schema} node={look.of} {owner} {name} {path} {label} {wrong} {touch} {table} open />
      {/if}
    </fieldset>
  {:else if value !== null && typeof value === 'object'}
    {#snippet inside()}
      {#each fields as [field, of] (field)}
        {#if small(of)}
          <Self
            {schema}
            node={of}
            owner={value as JsonObject}
            name={field}
            path="{path}.{field}"
            label={schema.called(field, of)}
            {wrong}
            {touch}
          />
        {/if}
      {/each}
    {/snippet}
    {#if open}
      <div class="fields mx-0 my-1 flex flex-wrap items-start gap-x-3.5 gap-y-1.5">{@render inside()}</div>
    {:else}
      <fieldset class="border-t-hair2 mt-2.5 w-full min-w-0 border-t px-0 pt-0.5 pb-2">
        <legend class="font-title pr-2.5">{label}</legend>
        <div class="fields mx-0 my-1 flex flex-wrap items-start gap-x-3.5 gap-y-1.5">{@render inside()}</div>
      </fieldset>
    {/if}
    {#each fields as [field, of] (field)}
      {#if !small(of) && schema.look(of).as !== 'fixed'}
        <Self
          {schema}
          node={of}
          owner={value as JsonObject}
          name={field}
          path="{path}.{field}"
          label={schema.called(field, of)}
          {wrong}
          {touch}
          {table}
        />
      {/if}
    {/each}
  {/if}
{/if}

<style>
  .row :global(.one) {
    width: 110px;
  }
  .row :global(.one.pair) {
    width: 126px;
  }
  .row :global(.one.long) {
    width: 330px;
    max-width: 100%;
  }
  .row :global(.fields) {
    min-width: 0;
  }
  .row :global(small) {
    display: none;
  }
  @media (min-width: 1121px) {
    .row :global(.fields) {
      flex-wrap: nowrap;
      margin: 2px 0;
    }
    /* A table in all but name: its heads stand over the first row, and are read out with every other. */
    .row:not(.first) :global(.one > span) {
      position: absolute;
      width: 1px;
      height: 1px;
      overflow: hidden;
      clip-path: inset(50%);
    }
  }

  .long {
    width: 350px;
    max-width: 100%;
  }

  .pair .field {
    width: 58px;
  }
</style>
