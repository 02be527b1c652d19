<script lang="ts">
  // When a charge is made: the conditions that must all hold, one beside the other; those not asked are not shown.
  import Choose from '../../lib/ui/Choose.svelte';
  import Remove from '../../lib/ui/Remove.svelte';
  import Entry from './Entry.svelte';
  import type { Json, JsonObject, OnForm } from './schema';

  /** Its node is that of the conditions; its label what they are for. */
  interface Props extends OnForm {
    /** What is said where there are none. */
    none: string;
    wrong: (path: string) => boolean;
    touch: () => void;
  }
  let { schema, node, owner, name, path, label, none, wrong, touch }: Props = $props();

  const holder = $derived(owner as Record<string | number, Json>);
  const asked = $derived(holder[name] as JsonObject | null | undefined);
  const every = $derived(Object.entries(schema.resolve(node).properties ?? {}));
  let added = $state<string[]>([]);
  let next = $state('');

  const said = (value: Json | undefined) =>
    value !== null && value !== undefined && value !== false && !(Array.isArray(value) && !value.length);
  const shown = $derived(every.filter(([field]) => said(asked?.[field]) || added.includes(field)));
  const others = $derived(every.filter(([field]) => !shown.some(([one]) => one === field)));

  function add(field: string): void {
    next = '';
    const of = every.find(([one]) => one === field)?.[1];
    if (!of) return;
    added = [...added, field];
    const fresh = schema.fresh(of);
    holder[name] = { ...asked, [field]: fresh === false ? true : fresh };
    touch();
    requestAnimationFrame(() => document.getElementById(`t-${path}.${field}`)?.focus());
  }
  function drop(field: string): void {
    added = added.filter((one) => one !== field);
    const left = Object.entries(asked ?? {}).filter(
      ([one, value]) => one !== field && (said(value) || added.includes(one)),
    );
    holder[name] = left.length ? Object.fromEntries(left) : null;
    touch();
  }
</script>

<div class="flex w-full min-w-0 flex-wrap items-end gap-x-3 gap-y-1.5 py-1" role="group" aria-label={label}>
  <span class="self-center font-medium">{label}</span>
  {#each shown as [field, of], n (field)}
    {#if n}<span class="text-soft self-center">and</span>{/if}
    <div class="flex max-w-full items-end gap-1 *:first:min-w-0">
      {#if schema.look(of).as === 'tick'}
        <span id="t-{path}.{field}" tabindex="-1" class="self-center">{schema.called(field, of)}</span>
      {:else if asked}
        <Entry
          {schema}
          node={of}
          owner={asked}
          name={field}
          path="{path}.{field}"
          label={schema.called(field, of)}
          {wrong}
          {touch}
        />
      {/if}
      <Remove of="{label}: {schema.called(field, of)}" go={() => drop(field)} />
    </div>
  {/each}
  {#if others.length}
    <div class="w-42">
      <Choose
        label="{label}: add a condition"
        labelled="unseen"
        bind:value={next}
        change={add}
        options={[
          ['', shown.length ? 'and…' : none],
          ...others.map(([field, of]) => [field, schema.called(field, of)] as const),
        ]}
      />
    </div>
  {/if}
</div>
