<script lang="ts">
  // What fills the room that is left: place by place, how deep, with what and how much of it.
  import type { JobDesk } from '../../job/job.svelte';
  import { shop } from '../../lib/shop.svelte';
  import Measured from '../../lib/ui/Measured.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const filling = $derived(desk.work.way?.filling);
  const kinds = $derived(shop.view ? [shop.view.shop.fill, ...(shop.view.shop.fills ?? [])] : []);
  const usual = $derived(desk.typed.fill.kind || kinds[0]?.name || '');

  function all(event: Event): void {
    const chosen = (event.currentTarget as HTMLSelectElement).value;
    desk.typed.fill.kind = chosen === kinds[0]?.name ? '' : chosen;
    desk.typed.fill.places = {};
    desk.touch();
  }
  function at(place: string, event: Event): void {
    desk.typed.fill.places[place] = (event.currentTarget as HTMLSelectElement).value;
    desk.touch();
  }
  function pack(event: Event): void {
    desk.typed.fill.full = (event.currentTarget as HTMLSelectElement).value as 'firm' | 'soft';
    desk.touch();
  }
</script>

{#if filling?.places.length}
  <section class="fill" aria-labelledby="fill-heading">
    <div class="top">
      <h2 id="fill-heading">Fill</h2>
      <label
        >Material
        <select class="field" value={usual} onchange={all}>
          {#each kinds as kind (kind.name)}<option>{kind.name}</option>{/each}
        </select></label
      >
      <label
        >Packed
        <select class="field" value={filling.full} onchange={pack}>
          <option value="firm">firm</option>
          <option value="soft">not too full</option>
        </select></label
      >
      <span class="all">In all {filling.in_all.join(', ')}</span>
    </div>
    <table>
      <thead><tr><th>Where</th><th>Depth</th><th>Volume</th><th>Material</th><th>Fetch</th></tr></thead>
      <tbody>
        {#each filling.places as place (place.where)}
          <tr>
            <th scope="row">{place.title}</th>
            <td class="figure"><Measured text={place.depth} /></td>
            <td>{place.litres}</td>
            <td>
              <select
                class="field"
                aria-label="Fill, {place.title.toLowerCase()}"
                value={place.kind}
                onchange={(event) => at(place.where, event)}
              >
                {#each kinds as kind (kind.name)}<option>{kind.name}</option>{/each}
              </select>
            </td>
            <td>{place.fetch}</td>
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="says">{filling.says}</p>
  </section>
{/if}

<style>
  .fill {
    margin-top: 18px;
  }
  .top {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px 16px;
    margin-bottom: 4px;
  }
  label {
    display: flex;
    align-items: center;
    gap: 8px;
    font-size: 14px;
    color: var(--soft);
  }
  select {
    height: 34px;
    width: auto;
    padding: 2px 6px;
    font-size: 14px;
    color: var(--ink);
  }
  .all {
    margin-left: auto;
    font-size: 14px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 14px;
  }
  th {
    text-align: left;
    font-weight: 550;
  }
  thead th {
    font-weight: 400;
    font-size: 13px;
    color: var(--soft);
  }
  td,
  th {
    padding: 3px 10px 3px 0;
  }
  tbody tr {
    border-top: 1px solid var(--hair);
  }
  .says {
    margin-top: 6px;
    font-size: 14px;
    color: var(--soft);
  }
</style>
