<script lang="ts">
  // Price: what each service asks for the box in hand, line by line, and who does not take it.
  import type { JobDesk } from '../../job/job.svelte';
  import NotYet from '../../job/NotYet.svelte';
  import MoneyKey from '../../lib/ui/MoneyKey.svelte';
  import QuoteSlip from './QuoteSlip.svelte';
  import StepMap from './StepMap.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const ways = $derived(desk.ways);
  const way = $derived(desk.way);
  const looked = $derived(way?.quotes.find((quote) => quote.chosen) ?? way?.quotes[0]);
  const most = $derived(Math.max(...(way?.quotes.map((quote) => Number(quote.total)) ?? [0])));
</script>

{#if way && desk.work?.missing.length === 0}
  <div class="head">
    <h2>What it costs in all, cheapest first</h2>
    <label>
      in the box
      <select class="field" value={way.way} onchange={(event) => desk.take(event.currentTarget.value)}>
        {#each ways as one (one.way)}<option value={one.way}>{one.title}</option>{/each}
      </select>
    </label>
  </div>
  {#if way.too_large}
    <p class="no">
      This box cannot be cut from the sheets in stock: {way.too_large}. Prices are for its size all the same.
    </p>
  {/if}
  <div class="quotes">
    {#each way.quotes as quote (quote.carrier + quote.service + quote.programme)}
      <QuoteSlip
        {quote}
        {most}
        choosable={way.too_large === null}
        choose={() => desk.choosePrice(way, quote)}
      />
      {#if quote === looked}<StepMap {desk} way={way.way} {quote} />{/if}
    {/each}
  </div>
  {#if way.quotes.length}
    <MoneyKey />
    <a
      class="link"
      href="/api/jobs/{desk.id}/prices.csv?way={way.way}"
      download
      onclick={(event) => void desk.follow(event, 'A comparison')}>This comparison as CSV</a
    >
  {/if}
  {#if way.refused.length}
    <h2 class="mt-5">Not taken by</h2>
    <ul>
      {#each way.refused as no, n (n)}
        <li><b>{no.carrier} {no.service}</b> {no.why}</li>
      {/each}
    </ul>
  {/if}
{:else if desk.work}
  <NotYet {desk} what="price" />
{/if}

<style>
  .head {
    display: flex;
    align-items: end;
    justify-content: space-between;
    gap: 16px;
    margin-bottom: 10px;
  }
  label {
    display: flex;
    gap: 8px;
    align-items: center;
    color: var(--soft);
    font-size: 14px;
  }
  select {
    width: 250px;
    height: 36px;
    color: var(--ink);
  }
  .quotes {
    display: grid;
    gap: 12px;
    margin-bottom: 10px;
  }
  .no {
    color: var(--stop);
    margin-bottom: 8px;
  }
  li {
    padding: 6px 0;
    border-top: 1px solid var(--hair);
    color: var(--soft);
  }
  li b {
    color: var(--ink);
    margin-right: 8px;
  }
</style>
