<script lang="ts">
  import type { QuoteView } from '../../lib/api/client';
  import MoneyBar from '../../lib/ui/MoneyBar.svelte';

  interface Props {
    quote: QuoteView;
    most: number;
    choosable: boolean;
    choose: () => void;
  }
  let { quote, most, choosable, choose }: Props = $props();

  const own = $derived(
    (
      [
        ['box', quote.costs.box],
        ['wrap', quote.costs.wrap],
        ['fill', quote.costs.fill],
        ['tape', quote.costs.tape],
        ['time', quote.costs.labour],
      ] as const
    ).filter(([, amount]) => Number(amount) > 0),
  );
</script>

<article class="sheet" class:chosen={quote.chosen} aria-label="{quote.carrier} {quote.service}">
  <div class="top">
    <h3>{quote.carrier} {quote.service}</h3>
    <span class="soft">{quote.programme}, {quote.days[0]}–{quote.days[1]} days, billed as {quote.billed}</span
    >
    <b class="figure sum">{quote.total}</b>
    <button class="btn" class:btn-main={!quote.chosen} disabled={quote.chosen || !choosable} onclick={choose}>
      {quote.chosen ? 'Chosen' : 'Choose'}
    </button>
  </div>
  <MoneyBar {quote} {most} />
  <table>
    <tbody>
      {#each quote.charges as charge (charge.what)}
        <tr
          ><td>{charge.what}</td><td class="soft">{charge.why}</td><td class="figure">{charge.amount}</td></tr
        >
      {/each}
      <tr class="carrier"><td>the carrier asks</td><td></td><td class="figure">{quote.amount}</td></tr>
      <tr>
        <td>the box costs you</td>
        <td class="soft">{own.map(([name, amount]) => `${name} ${amount}`).join(', ')}</td>
        <td class="figure">{quote.own}</td>
      </tr>
    </tbody>
  </table>
</article>

<style>
  article {
    padding: 12px 16px 10px;
  }
  .chosen {
    box-shadow: inset 4px 0 0 var(--twine);
  }
  .top {
    display: flex;
    align-items: baseline;
    gap: 14px;
  }
  h3 {
    font-weight: 650;
    font-size: 17px;
  }
  .soft {
    color: var(--soft);
    font-size: 14px;
  }
  .sum {
    margin-left: auto;
    font-size: 22px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  td {
    padding: 3px 12px 3px 0;
    border-top: 1px solid var(--hair);
    vertical-align: baseline;
  }
  td:first-child {
    width: 190px;
  }
  td.figure {
    text-align: right;
    padding-right: 0;
    white-space: nowrap;
  }
  .carrier td {
    font-weight: 600;
  }
</style>
