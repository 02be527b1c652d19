<script lang="ts">
  // What fills the room that is left: place by place, how deep, with what and how much of it.
  import Wide from '../../lib/ui/Wide.svelte';
  import Choose from '../../lib/ui/Choose.svelte';
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

  function all(chosen: string): void {
    desk.typed.fill.kind = chosen === kinds[0]?.name ? '' : chosen;
    desk.typed.fill.places = {};
    desk.touch();
  }
  function at(place: string, kind: string): void {
    desk.typed.fill.places[place] = kind;
    desk.touch();
  }
  function pack(full: 'firm' | 'soft'): void {
    desk.typed.fill.full = full;
    desk.touch();
  }
</script>

{#if filling?.places.length}
  <section class="fill mt-4.5" aria-labelledby="fill-heading">
    <div class="top mb-1 flex flex-wrap items-center gap-x-4 gap-y-1.5">
      <h2 id="fill-heading">Fill</h2>
      <Choose
        id="fill-all"
        labelled="beside"
        label="Material"
        place="text-note h-8.5 w-auto px-1.5"
        value={usual}
        change={all}
        options={kinds.map((kind) => kind.name)}
      />
      <Choose
        id="fill-packed"
        labelled="beside"
        label="Packed"
        place="text-note h-8.5 w-auto px-1.5"
        value={filling.full}
        change={pack}
        options={[
          ['firm', 'firm'],
          ['soft', 'not too full'],
        ]}
      />
      <span class="all text-note ml-auto">Total {filling.in_all.join(', ')}</span>
    </div>
    <Wide>
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
                <Choose
                  labelled="unseen"
                  label="Fill, {place.title.toLowerCase()}"
                  place="text-note h-8.5 w-auto px-1.5"
                  value={place.kind}
                  change={(kind) => at(place.where, kind)}
                  options={kinds.map((kind) => kind.name)}
                />
              </td>
              <td class="py-0.75 pr-2.5 pl-0">{place.fetch}</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </Wide>
    <p class="says text-soft text-note mt-1.5">{filling.says}</p>
  </section>
{/if}
