<script lang="ts">
  // The liner of the box, and everything there is to cut and to use for the whole job.
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
  <span class="choice">
    <label for={id}>{label}</label>
    <select
      {id}
      class="field"
      value={desk.typed[name]?.material ?? ''}
      onchange={(event) => take(name, event.currentTarget.value)}
    >
      <option value="">nothing</option>
      {#each offered as one (one.code)}<option value={one.code}>{one.name}</option>{/each}
    </select>
  </span>
{/snippet}

<section class="wrap sheet" aria-label="All the wrap">
  <div class="head">
    <h2>Wrap cutting list</h2>
    {@render choice('liner', 'liner', 'Wall liner', liners)}
    {@render choice('over-box', 'overBox', 'Wrap around a closed box in a bag', winds)}
  </div>
  {#if wrap?.cuts.length}
    <table>
      <thead>
        <tr
          ><th scope="col">Cut</th><th scope="col">Size</th><th scope="col">Of</th><th scope="col">For</th
          ></tr
        >
      </thead>
      <tbody>
        {#each wrap.cuts as cut, n (n)}
          <tr>
            <td class="figure">{cut.pieces.replace(' x', ' ×')}</td>
            <td class="figure"><Measured text={cut.size} /></td>
            <td>{cut.material}</td>
            <td>{cut.what}</td>
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="total">
      {#each wrap.totals as one (one.name)}<span>{one.name} {one.amount}</span>{/each}
    </p>
    <p class="sum">
      <b class="figure">{wrap.price}</b>
      <span>{shop.view?.shop.currency}, {wrap.weight}, {wrap.minutes} minutes to put on</span>
      {#if innerBoxes}
        <a class="link" href="/api/jobs/{desk.id}/inner-boxes.pdf" onclick={print}>Inner boxes to cut</a>
      {/if}
      {#if guards}
        <a class="link" href="/api/jobs/{desk.id}/corner-guards.pdf" onclick={print}>Corner guards to cut</a>
      {/if}
    </p>
  {:else}
    <p class="soft">Nothing is cut for wrap yet. Add a layer to a part above.</p>
  {/if}
  {#if wrap?.fill?.length}<p class="soft">To fill the selected box: {wrap.fill.join(', ')}.</p>{/if}
</section>

<style>
  .wrap {
    margin-top: 14px;
    padding: 12px 16px;
  }
  .head {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px 10px;
  }
  h2 {
    flex-basis: 100%;
    color: var(--ink);
  }
  label {
    font-size: 13.5px;
    color: var(--soft);
  }
  .choice {
    display: flex;
    gap: 8px;
    align-items: center;
    margin-right: 8px;
  }
  .field {
    width: 132px;
    height: 34px;
  }
  table {
    width: 100%;
    margin-top: 8px;
    font-size: 14px;
    border-collapse: collapse;
  }
  td {
    padding: 3px 10px 3px 0;
    border-top: 1px solid var(--hair);
    vertical-align: baseline;
  }
  td:nth-child(2) {
    white-space: nowrap;
  }
  .total {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 16px;
    margin-top: 8px;
    font-size: 13.5px;
    color: var(--soft);
  }
  .sum {
    display: flex;
    align-items: baseline;
    gap: 8px;
  }
  .sum b {
    font-size: 20px;
  }
  .sum .link {
    margin-left: auto;
    font-size: 14px;
  }
  .soft {
    color: var(--soft);
    font-size: 14px;
  }
</style>
