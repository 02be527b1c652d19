<script lang="ts">
  // The liner of the box, and everything there is to cut and to use for the whole job.
  import Choose from '../../lib/ui/Choose.svelte';
  import type { JobDesk } from '../../job/job.svelte';
  import { blankLayer } from '../../job/typed';
  import { formOf, shop } from '../../lib/shop.svelte';
  import Measured from '../../lib/ui/Measured.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const wrap = $derived(desk.work.view?.wrap);
  const liners = $derived(shop.view?.shop.materials?.filter((one) => formOf(one.form)?.on_walls) ?? []);
  const winds = $derived(shop.view?.shop.materials?.filter((one) => formOf(one.form)?.around_a_box) ?? []);
  const innerBoxes = $derived(desk.work.view?.parts.some((part) => part.inner_boxes) ?? false);
  const guards = $derived(desk.work.view?.parts.some((part) => part.guards) ?? false);

  function take(name: 'liner' | 'overBox', material: string): void {
    desk.typed[name] = material ? { ...(desk.typed[name] ?? blankLayer(material)), material } : null;
    desk.touch();
  }

  async function print(event: MouseEvent): Promise<void> {
    event.preventDefault();
    const link = event.currentTarget as HTMLAnchorElement;
    if (await desk.saver.settle()) window.open(link.href, '_blank', 'noopener');
  }
</script>

{#snippet choice(id: string, name: 'liner' | 'overBox', label: string, offered: typeof liners)}
  <span class="mr-2 flex items-center gap-2"
    ><Choose
      {id}
      {label}
      labelled="beside"
      place="h-8.5 w-33"
      value={desk.typed[name]?.material ?? ''}
      change={(code) => take(name, code)}
      options={[['', 'nothing'], ...offered.map((one) => [one.code, one.name] as const)]}
    />
  </span>
{/snippet}

<section class="wrap sheet mt-3.5 px-4 py-3" aria-label="All the wrap">
  <div class="flex flex-wrap items-center gap-x-2.5 gap-y-1.5">
    <h2 class="text-ink basis-full">Wrap cutting list</h2>
    {@render choice('liner', 'liner', 'Wall liner', liners)}
    {@render choice('over-box', 'overBox', 'Wrap around a closed box in a bag', winds)}
  </div>
  {#if wrap?.cuts.length}
    <table class="text-note mt-2 w-full border-collapse">
      <thead>
        <tr
          ><th scope="col">Cut</th><th scope="col">Size</th><th scope="col">Of</th><th scope="col">For</th
          ></tr
        >
      </thead>
      <tbody>
        {#each wrap.cuts as cut, n (n)}
          <tr>
            <td class="figure border-t-hair border-t py-0.75 pr-2.5 pl-0 align-baseline"
              >{cut.pieces.replace(' x', ' ×')}</td
            >
            <td class="figure border-t-hair border-t py-0.75 pr-2.5 pl-0 align-baseline"
              ><Measured text={cut.size} /></td
            >
            <td class="border-t-hair border-t py-0.75 pr-2.5 pl-0 align-baseline">{cut.material}</td>
            <td class="border-t-hair border-t py-0.75 pr-2.5 pl-0 align-baseline">{cut.what}</td>
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="total text-soft text-small mt-2 flex flex-wrap gap-x-4 gap-y-0.5">
      {#each wrap.totals as one (one.name)}<span>{one.name} {one.amount}</span>{/each}
    </p>
    <p class="sum flex items-baseline gap-2">
      <b class="figure text-head">{wrap.price}</b>
      <span>{shop.view?.shop.currency}, {wrap.weight}, {wrap.minutes} minutes to put on</span>
      {#if innerBoxes}
        <a class="link text-note ml-auto" href="/api/jobs/{desk.id}/inner-boxes.pdf" onclick={print}
          >Inner boxes to cut</a
        >
      {/if}
      {#if guards}
        <a class="link text-note ml-auto" href="/api/jobs/{desk.id}/corner-guards.pdf" onclick={print}
          >Corner guards to cut</a
        >
      {/if}
    </p>
  {:else}
    <p class="text-soft text-note">Nothing is cut for wrap yet. Add a layer to a part above.</p>
  {/if}
  {#if wrap?.fill?.length}<p class="text-soft text-note">
      To fill the selected box: {wrap.fill.join(', ')}.
    </p>{/if}
</section>

<style>
  td:nth-child(2) {
    white-space: nowrap;
  }
</style>
