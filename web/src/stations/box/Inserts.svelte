<script lang="ts">
  // What goes into the box of board beside the goods: each is cut with it, and its piece joins the cut sheet.
  import type { JobDesk } from '../../job/job.svelte';
  import { blankInsert, type TypedInsert } from '../../job/typed';
  import { shop } from '../../lib/shop.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const kinds = $derived(shop.view?.inserts ?? []);
  const kindOf = (insert: TypedInsert) => kinds.find((one) => one.kind === insert.kind);
  const inserts = $derived(desk.typed.inserts);

  function add(event: Event): void {
    const chosen = event.currentTarget as HTMLSelectElement;
    if (!chosen.value) return;
    const kind = kinds.find((one) => one.kind === chosen.value);
    if (kind) desk.typed.inserts.push(blankInsert(kind.kind, kind.count));
    chosen.value = '';
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
  <label class="asked" class:wide
    >{label}
    <input
      id="insert-{n}-{name}"
      class="field figure"
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
  <label class="asked few"
    >{label}
    <input
      id="insert-{n}-{name}"
      class="field figure"
      inputmode="numeric"
      maxlength="3"
      autocomplete="off"
      bind:value={insert[name]}
      oninput={touch}
    /></label
  >
{/snippet}

<section class="inserts" aria-label="Inserts">
  <div class="head">
    <h3>Inserts, cut with it</h3>
    <select class="field" id="insert-add" aria-label="Add an insert" onchange={add}>
      <option value="">Add…</option>
      {#each kinds as one (one.kind)}<option value={one.kind}>{one.title}</option>{/each}
    </select>
    <label class="asked"
      >Press goods in by
      <input
        id="pressed"
        class="field figure"
        maxlength="40"
        autocomplete="off"
        aria-invalid={desk.work.problem('pressed') !== ''}
        aria-describedby={desk.work.problem('pressed') ? 'pressed-wrong' : undefined}
        bind:value={desk.typed.pressed}
        oninput={touch}
      /></label
    >
    <label class="tick"
      ><input type="checkbox" id="hand-holes" bind:checked={desk.typed.handHoles} onchange={touch} /> hand holes</label
    >
  </div>
  {#if desk.work.problem('pressed')}<p class="wrong" id="pressed-wrong">
      {desk.work.problem('pressed')}
    </p>{/if}
  {#each inserts as insert, n (insert)}
    {@const wrong = ['size', 'length', 'depth', 'along', 'across', 'count']
      .map((name) => desk.work.problem(`inserts[${n}].${name}`))
      .find(Boolean)}
    {@const title = kindOf(insert)?.title ?? insert.kind}
    <div class="row" role="group" aria-label={title}>
      <b>{title}</b>
      {#each kindOf(insert)?.asks ?? [] as one (one.field)}
        {#if one.field === 'where'}
          <label class="asked"
            >{one.label}
            <select
              class="field"
              bind:value={insert.where}
              onchange={touch}
              aria-label="Where the {title} lies"
            >
              <option value="below">under the goods</option><option value="above">over them</option><option
                value="both">under and over</option
              >
            </select></label
          >
        {:else if one.field === 'size' || one.field === 'length' || one.field === 'depth'}
          {@render measure(insert, n, one.field, one.label, one.field === 'size')}
        {:else}
          {@render number(insert, n, one.field, one.label)}
        {/if}
      {/each}
      <button type="button" class="off" onclick={() => drop(n)} aria-label="Remove the {title}">×</button>
      {#if wrong}<p class="wrong" id="insert-{n}-wrong">{wrong}</p>{/if}
    </div>
  {/each}
</section>

<style>
  .inserts {
    border-top: 1px solid var(--hair);
    margin-top: 10px;
    padding-top: 8px;
  }
  .head {
    display: flex;
    gap: 14px;
    align-items: center;
    flex-wrap: wrap;
  }
  h3 {
    font-weight: 600;
  }
  .head select {
    width: 190px;
    height: 36px;
    font-size: 15px;
  }
  .tick {
    display: flex;
    gap: 6px;
    align-items: center;
    margin-left: auto;
    font-size: 14.5px;
  }
  .tick input {
    accent-color: var(--twine);
    width: 17px;
    height: 17px;
  }
  .row {
    display: flex;
    gap: 6px 14px;
    align-items: center;
    flex-wrap: wrap;
    border-top: 1px solid var(--hair);
    padding: 5px 0;
    margin-top: 5px;
  }
  .row b {
    font-weight: 550;
    min-width: 128px;
  }
  .asked {
    display: flex;
    gap: 7px;
    align-items: center;
    font-size: 14px;
    color: var(--soft);
  }
  .asked input {
    width: 78px;
    height: 34px;
  }
  .asked select {
    height: 34px;
    font-size: 15px;
  }
  .few input {
    width: 52px;
  }
  .wide input {
    width: 190px;
  }
  .off {
    margin-left: auto;
    min-width: 32px;
    min-height: 32px;
    color: var(--soft);
  }
  .wrong {
    flex-basis: 100%;
    font-size: 13.5px;
    color: var(--stop);
  }
</style>
