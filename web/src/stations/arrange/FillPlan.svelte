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
  <section class="fill mt-4.5" aria-labelledby="fill-heading">
    <div class="top mb-1 flex flex-wrap items-center gap-x-4 gap-y-1.5">
      <h2 id="fill-heading">Fill</h2>
      <label class="text-soft text-note flex items-center gap-2"
        >Material
        <select class="field text-ink text-note h-8.5 w-auto px-1.5 py-0.5" value={usual} onchange={all}>
          {#each kinds as kind (kind.name)}<option>{kind.name}</option>{/each}
        </select></label
      >
      <label class="text-soft text-note flex items-center gap-2"
        >Packed
        <select
          class="field text-ink text-note h-8.5 w-auto px-1.5 py-0.5"
          value={filling.full}
          onchange={pack}
        >
          <option value="firm">firm</option>
          <option value="soft">not too full</option>
        </select></label
      >
      <span class="all text-note ml-auto">In all {filling.in_all.join(', ')}</span>
    </div>
    <div class="max-w-full overflow-x-auto">
      <table class="text-note w-full border-collapse">
        <thead
          ><tr
            ><th class="text-soft text-small py-0.75 pr-2.5 pl-0 text-left font-normal">Where</th><th
              class="text-soft text-small py-0.75 pr-2.5 pl-0 text-left font-normal">Depth</th
            ><th class="text-soft text-small py-0.75 pr-2.5 pl-0 text-left font-normal">Volume</th><th
              class="text-soft text-small py-0.75 pr-2.5 pl-0 text-left font-normal">Material</th
            ><th class="text-soft text-small py-0.75 pr-2.5 pl-0 text-left font-normal">Fetch</th></tr
          ></thead
        >
        <tbody>
          {#each filling.places as place (place.where)}
            <tr class="border-t-hair border-t">
              <th class="font-strong py-0.75 pr-2.5 pl-0 text-left" scope="row">{place.title}</th>
              <td class="figure py-0.75 pr-2.5 pl-0"><Measured text={place.depth} /></td>
              <td class="py-0.75 pr-2.5 pl-0">{place.litres}</td>
              <td class="py-0.75 pr-2.5 pl-0">
                <select
                  class="field text-ink text-note h-8.5 w-auto px-1.5 py-0.5"
                  aria-label="Fill, {place.title.toLowerCase()}"
                  value={place.kind}
                  onchange={(event) => at(place.where, event)}
                >
                  {#each kinds as kind (kind.name)}<option>{kind.name}</option>{/each}
                </select>
              </td>
              <td class="py-0.75 pr-2.5 pl-0">{place.fetch}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    <p class="says text-soft text-note mt-1.5">{filling.says}</p>
  </section>
{/if}
