<script lang="ts">
  // What goes into the box of board beside the goods: each is cut with it, and its piece joins the cut sheet.
  import Choose from '../../lib/ui/Choose.svelte';
  import type { JobDesk } from '../../job/job.svelte';
  import { blankInsert, type TypedInsert } from '../../job/typed';
  import { shop } from '../../lib/shop.svelte';
  import Remove from '../../lib/ui/Remove.svelte';
  import Tick from '../../lib/ui/Tick.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const kinds = $derived(shop.view?.inserts ?? []);
  const kindOf = (insert: TypedInsert) => kinds.find((one) => one.kind === insert.kind);
  const inserts = $derived(desk.typed.inserts);

  function add(chosen: string): void {
    const kind = kinds.find((one) => one.kind === chosen);
    if (!kind) return;
    desk.typed.inserts.push(blankInsert(kind.kind, kind.count));
    desk.touch();
  }
  function drop(n: number): void {
    desk.typed.inserts.splice(n, 1);
    desk.touch();
  }
  const touch = () => desk.touch();
</script>

{#snippet measure(
  insert: TypedInsert,
  n: number,
  name: 'size' | 'length' | 'depth',
  label: string,
  wide: boolean,
)}
  {@const wrong = desk.work.problem(`inserts[${n}].${name}`)}
  <label class="text-soft text-note flex items-center gap-1.75" class:wide
    >{label}
    <input
      id="insert-{n}-{name}"
      class="field figure h-8.5 w-19.5"
      maxlength="80"
      autocomplete="off"
      aria-invalid={wrong !== ''}
      aria-describedby={wrong ? `insert-${n}-wrong` : undefined}
      bind:value={insert[name]}
      oninput={touch}
    /></label
  >
{/snippet}
{#snippet number(insert: TypedInsert, n: number, name: 'count' | 'along' | 'across', label: string)}
  <label class="text-soft text-note flex items-center gap-1.75"
    >{label}
    <input
      id="insert-{n}-{name}"
      class="field figure h-8.5 w-13"
      inputmode="numeric"
      maxlength="3"
      autocomplete="off"
      bind:value={insert[name]}
      oninput={touch}
    /></label
  >
{/snippet}

<section class="border-t-hair mt-2.5 border-t pt-2" aria-label="Inserts">
  <div class="flex flex-wrap items-center gap-3.5">
    <h3 class="font-semibold">Inserts, cut with it</h3>
    <Choose
      id="insert-add"
      labelled="unseen"
      label="Add an insert"
      place="h-9 w-47.5"
      bind:value={() => '', add}
      options={[['', 'Add…'], ...kinds.map((one) => [one.kind, one.title] as const)]}
    />
    <label class="text-soft text-note flex items-center gap-1.75"
      >Press goods in by
      <input
        id="pressed"
        class="field figure h-8.5 w-19.5"
        maxlength="40"
        autocomplete="off"
        aria-invalid={desk.work.problem('pressed') !== ''}
        aria-describedby={desk.work.problem('pressed') ? 'pressed-wrong' : undefined}
        bind:value={desk.typed.pressed}
        oninput={touch}
      /></label
    >
    <Tick id="hand-holes" bind:checked={desk.typed.handHoles} change={touch} place="ml-auto">hand holes</Tick>
  </div>
  {#if desk.work.problem('pressed')}<p class="wrong text-stop text-small basis-full" id="pressed-wrong">
      {desk.work.problem('pressed')}
    </p>{/if}
  {#each inserts as insert, n (insert)}
    {@const wrong = ['size', 'length', 'depth', 'along', 'across', 'count']
      .map((name) => desk.work.problem(`inserts[${n}].${name}`))
      .find(Boolean)}
    {@const title = kindOf(insert)?.title ?? insert.kind}
    <div
      class="row border-t-hair mt-1.25 flex flex-wrap items-center gap-x-3.5 gap-y-1.5 border-t px-0 py-1.25"
      role="group"
      aria-label={title}
    >
      <b class="font-strong min-w-32">{title}</b>
      {#each kindOf(insert)?.asks ?? [] as one (one.field)}
        {#if one.field === 'where'}
          <Choose
            labelled="beside"
            label={one.label}
            place="h-8.5 w-40"
            bind:value={insert.where}
            change={touch}
            options={[
              ['below', 'under the goods'],
              ['above', 'over them'],
              ['both', 'under and over'],
            ]}
          />
        {:else if one.field === 'size' || one.field === 'length' || one.field === 'depth'}
          {@render measure(insert, n, one.field, one.label, one.field === 'size')}
        {:else}
          {@render number(insert, n, one.field, one.label)}
        {/if}
      {/each}
      <Remove of="the {title}" go={() => drop(n)} place="ml-auto" />
      {#if wrong}<p class="wrong text-stop text-small basis-full" id="insert-{n}-wrong">{wrong}</p>{/if}
    </div>
  {/each}
</section>

<style>
  .wide input {
    width: 190px;
  }
</style>
