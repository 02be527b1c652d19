<script lang="ts">
  // Up to four ways to send it side by side, row by row: where the money goes, what is billed, how long it takes. The least
  // of a row stands out; below the sums, what each is more than the cheapest of them.
  import { calls, type ComparedRows, type QuoteView } from '../../lib/api/client';

  interface Props {
    quotes: QuoteView[];
    drop: (quote: QuoteView) => void;
  }
  let { quotes, drop }: Props = $props();

  let open = $state(true);
  let height = $state(0);
  // It lies over the foot of the page: what the keyboard goes to is scrolled clear of it.
  $effect(() => {
    document.documentElement.style.scrollPaddingBottom = `${height + 12}px`;
    return () => {
      document.documentElement.style.scrollPaddingBottom = '';
    };
  });
  const ROWS = [
    ['postage', (quote: QuoteView) => quote.costs.postage],
    ['surcharges', (quote: QuoteView) => quote.costs.surcharges],
    ['cover', (quote: QuoteView) => quote.costs.cover],
    ['the box costs you', (quote: QuoteView) => quote.own],
  ] as const;

  const amounts = $derived<Record<string, string[]>>({
    ...Object.fromEntries(ROWS.map(([label, of]) => [label, quotes.map(of)])),
    total: quotes.map((quote) => quote.total),
  });
  /** What stands out in each row, as the shop reckons it. */
  let compared = $state.raw<ComparedRows>({});
  $effect(() => {
    const asked = new AbortController();
    const currency = quotes[0]?.currency;
    if (currency)
      calls
        .compare({ currency, rows: amounts }, asked.signal)
        .then((rows) => (compared = rows))
        .catch(() => {
          // A newer set was asked about, or the shop is away: the amounts stand there as they are.
        });
    return () => asked.abort();
  });
  const rows = $derived(ROWS.filter(([label]) => !compared[label]?.nothing));
  const costs = (amount: string) => /[1-9]/.test(amount);
  const extras = (quote: QuoteView) =>
    quote.charges
      .filter((charge) => !['postage', 'cover'].includes(charge.kind))
      .map((charge) => charge.what);
</script>

<section class="sheet" aria-label="Side by side" bind:offsetHeight={height}>
  <h2>
    <button class="open" aria-expanded={open} onclick={() => (open = !open)}
      >Side by side <span class="soft">{quotes.length} of at most 4</span></button
    >
  </h2>
  {#if open}
    <div class="scroll">
      <table>
        <thead>
          <tr>
            <td></td>
            {#each quotes as quote (quote.carrier + quote.service + quote.programme)}
              <th scope="col"
                ><span>{quote.carrier} {quote.service}</span><small>{quote.programme}</small>
                <button
                  class="off"
                  aria-label="Take {quote.carrier} {quote.service}, {quote.programme}, away"
                  onclick={() => drop(quote)}>×</button
                ></th
              >
            {/each}
          </tr>
        </thead>
        <tbody>
          {#each rows as [label] (label)}
            <tr>
              <th scope="row">{label}</th>
              {#each amounts[label] ?? [] as amount, n (n)}
                <td class="figure" class:least={compared[label]?.least[n]}
                  >{costs(amount) ? amount : '–'}{#if label === 'surcharges' && quotes[n]}<small
                      >{[...new Set(extras(quotes[n]))].join(', ')}</small
                    >{/if}</td
                >
              {/each}
            </tr>
          {/each}
          <tr class="sum">
            <th scope="row">in all</th>
            {#each quotes as quote, n (n)}
              {@const over = compared.total?.over[n]}
              <td class="figure" class:least={compared.total?.least[n]}
                >{quote.total}<small>{over ? `${over} more` : compared.total ? 'the least' : '\u00a0'}</small
                ></td
              >
            {/each}
          </tr>
          <tr>
            <th scope="row">billed as</th>
            {#each quotes as quote, n (n)}<td class="figure">{[quote.billed, ...quote.beside].join(' + ')}</td
              >{/each}
          </tr>
          <tr>
            <th scope="row">days</th>
            {#each quotes as quote, n (n)}<td class="figure">{quote.days[0]}–{quote.days[1]}</td>{/each}
          </tr>
        </tbody>
      </table>
    </div>
  {/if}
</section>

<style>
  section {
    position: sticky;
    bottom: 0;
    z-index: 2;
    padding: 6px 16px 8px;
    border-top: 3px solid var(--twine);
  }
  .open {
    width: 100%;
    text-align: left;
    min-height: 34px;
  }
  .open::before {
    content: '▸ ';
  }
  .open[aria-expanded='true']::before {
    content: '▾ ';
  }
  .scroll {
    overflow: auto;
    max-height: 52vh;
  }
  .soft,
  small {
    color: var(--soft);
    font-size: 13px;
    font-weight: 450;
  }
  small {
    display: block;
    font-family: var(--font-sans);
  }
  table {
    width: 100%;
    border-collapse: collapse;
    table-layout: fixed;
  }
  th[scope='row'] {
    text-align: left;
  }
  th[scope='col'] {
    position: relative;
    padding-right: 30px;
    color: var(--ink);
    font-size: 15px;
    font-weight: 650;
    text-align: right;
  }
  td,
  th {
    padding: 3px 0 3px 14px;
    border-top: 1px solid var(--hair);
    text-align: right;
    vertical-align: top;
  }
  thead td,
  thead th {
    border: 0;
  }
  td.figure {
    padding-right: 30px;
  }
  .least {
    font-weight: 700;
    text-decoration: underline;
    text-decoration-color: var(--twine);
    text-decoration-thickness: 2px;
    text-underline-offset: 3px;
  }
  .least small {
    display: inline-block;
    width: 100%; /* a line of its own, and not underlined with the sum */
  }
  .sum td {
    font-size: 18px;
  }
  .off {
    position: absolute;
    right: 0;
    top: 0;
    font-size: 21px;
    color: var(--soft);
    min-width: 26px;
    min-height: 26px;
  }
</style>
