<script lang="ts">
  // Price: what each service asks for the box in hand, line by line, who does not take it, what else people weigh up, and
  // what carriers say when they are asked themselves.
  import type { JobDesk } from '../../job/job.svelte';
  import NotYet from '../../job/NotYet.svelte';
  import type { QuoteView } from '../../lib/api/client';
  import { toast } from '../../lib/toast.svelte';
  import MoneyKey from '../../lib/ui/MoneyKey.svelte';
  import InParcels from './InParcels.svelte';
  import OverTheWire from './OverTheWire.svelte';
  import QuoteSlip from './QuoteSlip.svelte';
  import SideBySide from './SideBySide.svelte';
  import StepMap from './StepMap.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const MOST_COMPARED = 4;
  let compared = $state<string[]>([]);

  const key = (quote: QuoteView) => `${quote.carrier}|${quote.service}|${quote.programme}`;
  const ways = $derived(desk.ways);
  const way = $derived(desk.way);
  const every = $derived([...(way?.quotes ?? []), ...(way?.others ?? [])]);
  const looked = $derived(every.find((quote) => quote.chosen) ?? way?.quotes[0]);
  const most = $derived(Math.max(...every.map((quote) => Number(quote.total)), 0));
  // In the order in which they were taken; one that no longer quotes waits until it does.
  const beside = $derived(compared.flatMap((name) => every.filter((quote) => key(quote) === name)));

  function compare(quote: QuoteView, on: boolean): void {
    compared = on ? [...compared, key(quote)] : compared.filter((name) => name !== key(quote));
  }

  async function byToday(quote: QuoteView): Promise<void> {
    const undo = await desk.priceByToday(quote);
    toast.show(`${quote.carrier} ${quote.service} is priced by its tariff of today.`, undo);
  }
</script>

{#snippet slip(quote: QuoteView, other: boolean)}
  {#if way}
    <QuoteSlip
      {quote}
      {most}
      choosable={way.too_large === null || quote.packs}
      choose={() => desk.choosePrice(way, quote)}
      compared={compared.includes(key(quote))}
      comparable={beside.length < MOST_COMPARED}
      compare={(on) => compare(quote, on)}
      byToday={() => void byToday(quote)}
      {other}
    />
    {#if quote === looked}<StepMap {desk} way={way.way} {quote} />{/if}
  {/if}
{/snippet}

{#if way && desk.work?.missing.length === 0}
  <div class="head">
    <h2>What it costs in all: covered first, then the cheapest</h2>
    <label class="listed">
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
    {#each way.quotes as quote (key(quote))}{@render slip(quote, false)}{/each}
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
  <InParcels {desk} />
  <OverTheWire {desk} way={way.way} />
  {#if way.others.length || way.others_refused.length}
    <h2 class="mt-5">In other ways</h2>
    <div class="quotes">
      {#each way.others as quote (key(quote))}{@render slip(quote, true)}{/each}
    </div>
    <ul>
      {#each way.others_refused as no, n (n)}
        <li><b>{no.carrier}, {no.service.toLowerCase()}</b> {no.why}</li>
      {/each}
    </ul>
  {/if}
  {#if way.refused.length}
    <h2 class="mt-5">Not taken by</h2>
    <ul>
      {#each way.refused as no, n (n)}
        <li><b>{no.carrier} {no.service}, {no.programme}</b> {no.why}</li>
      {/each}
    </ul>
  {/if}
  {#if beside.length > 1}
    <SideBySide quotes={beside} drop={(quote) => compare(quote, false)} />
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
  select {
    width: 250px;
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
