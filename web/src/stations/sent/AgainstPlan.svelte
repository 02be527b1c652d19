<script lang="ts">
  // The closed parcel beside its plan: weight, sides, price, and what can be done where it costs more.
  import { follow } from '../../lib/router.svelte';
  import Measured from '../../lib/ui/Measured.svelte';
  import type { Sending } from '../../lib/sending.svelte';

  interface Props {
    sending: Sending;
  }
  let { sending }: Props = $props();

  const closed = $derived(sending.view?.closed);
  const rows = $derived(
    closed
      ? [
          { what: 'Weight', planned: closed.planned_weight, is: closed.weight },
          { what: 'Outside', planned: closed.planned_sides, is: closed.sides },
          {
            what: closed.service || 'Price',
            planned: closed.planned_price ?? '–',
            is: closed.weight || closed.sides ? (closed.price ?? '–') : '',
          },
        ]
      : [],
  );
  const more = $derived(Number(closed?.more ?? 0));
</script>

{#if closed}
  <table class="mt-1 w-full border-collapse">
    <thead>
      <tr class="text-soft text-small">
        <td></td>
        <th scope="col" class="py-1 text-right font-normal">Planned</th>
        <th scope="col" class="py-1 text-right font-normal">Closed</th>
      </tr>
    </thead>
    <tbody>
      {#each rows as row (row.what)}
        <tr>
          <th scope="row" class="border-t-hair border-t py-1.5 text-left font-normal">{row.what}</th>
          <td class="figure border-t-hair border-t py-1.5 pl-3 text-right"><Measured text={row.planned} /></td
          >
          <td class="figure border-t-hair font-title border-t py-1.5 pl-3 text-right"
            ><Measured text={row.is || '–'} /></td
          >
        </tr>
      {/each}
    </tbody>
  </table>
  <div role="status" class="min-h-8">
    {#each closed.doubts as doubt (doubt)}
      <p class="bg-amber-pale border-l-amber-mark mt-2 border-l-4 px-3 py-1.5">{doubt}</p>
    {/each}
    {#if closed.bulges}<p class="mt-2">Over the plan: {closed.bulges}.</p>{/if}
    {#if closed.refused}
      <p class="text-stop font-title mt-2">{closed.service}: {closed.refused}</p>
    {:else if closed.weight || closed.sides}
      <p class="mt-2 font-semibold">
        {#if !closed.service}No service is chosen, so that nothing is priced again. <a
            class="link font-normal"
            href="/jobs/{sending.id}/price"
            onclick={follow}>Choose the service</a
          >
        {:else if more > 0}{closed.more} {closed.currency} more than planned. Before you buy the label:
        {:else if more < 0}{(-more).toFixed(closed.more?.split('.')[1]?.length ?? 0)}
          {closed.currency} less than planned.
        {:else}The price is as planned.{/if}
      </p>
    {/if}
    {#if closed.advice.length}
      <ul class="mt-1" aria-label="What can be done">
        {#each closed.advice as one (one.says)}
          <li class="border-t-hair flex justify-between gap-4 border-t py-1.5">
            <span>{one.says}</span>
            <span class="figure text-soft whitespace-nowrap"
              >{one.deed === 'pay' ? '' : Number(one.saves) ? `saves ${one.saves}` : ''}</span
            >
          </li>
        {/each}
      </ul>
    {/if}
  </div>
{/if}
