<script lang="ts">
  // A plan strip: one way to send it, what the money goes to as a bar, and every line that makes it up.
  import type { QuoteView } from '../../lib/api/client';
  import MoneyBar from '../../lib/ui/MoneyBar.svelte';

  interface Props {
    quote: QuoteView;
    most: number;
    choosable: boolean;
    choose: () => void;
    /** Whether it is laid side by side with others, and whether it may be. */
    compared: boolean;
    comparable: boolean;
    compare: (on: boolean) => void;
    byToday: () => void;
    /** No carrier that calls. */
    other?: boolean;
  }
  let {
    quote,
    most,
    choosable,
    choose,
    compared,
    comparable,
    compare,
    byToday,
    other = false,
  }: Props = $props();

  const name = $derived(
    other ? `${quote.carrier}, ${quote.service.toLowerCase()}` : `${quote.carrier} ${quote.service}`,
  );
  const parcels = $derived(quote.beside.length + 1);
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
  const tracked = $derived(
    quote.tracked === true ? ', tracked' : quote.tracked === false ? ', not tracked' : '',
  );
  const letter = $derived(quote.form === 'parcel' ? '' : `, as a ${quote.form}`);
  const billed = $derived(
    parcels > 1
      ? `${parcels} parcels, billed as ${[quote.billed, ...quote.beside].join(' and ')}`
      : `billed as ${quote.billed}`,
  );
  const days = $derived(
    quote.days[0] === quote.days[1]
      ? `${quote.days[0]} ${quote.days[0] === 1 ? 'day' : 'days'}`
      : `${quote.days[0]}–${quote.days[1]} days`,
  );
</script>

<article class="sheet" class:chosen={quote.chosen} aria-label="{name}, {quote.programme}">
  <div class="top">
    <h3>{name}</h3>
    <span class="soft">{quote.programme}, {days}{tracked}{letter}</span>
    <b class="figure sum">{quote.total}</b>
    <button class="btn" class:btn-main={!quote.chosen} disabled={quote.chosen || !choosable} onclick={choose}>
      {quote.chosen ? 'Chosen' : 'Choose'}
    </button>
  </div>
  <div class="top">
    <span class="soft"
      >{billed}{quote.dimensional ? `, weighs ${quote.actual}, by its size ${quote.dimensional}` : ''}</span
    >
    <label class="beside"
      ><input
        type="checkbox"
        checked={compared}
        disabled={!compared && !comparable}
        onchange={(event) => compare(event.currentTarget.checked)}
        aria-label="Lay {name}, {quote.programme}, side by side"
      /> side by side</label
    >
  </div>
  {#if quote.kept}
    <p class="kept">
      Priced by version {quote.kept.version} of its tariff, which this job keeps. Today's
      {quote.kept.amount_today === null || quote.kept.amount_today === undefined
        ? 'does not take it.'
        : `asks ${quote.kept.amount_today}, not ${quote.amount}.`}
      {#if quote.kept.amount_today}<button class="link" onclick={byToday}>Price by today's</button>{/if}
    </p>
  {/if}
  {#if quote.uncovered}<p class="risk">not covered: {quote.uncovered}</p>{/if}
  {#if quote.more && !quote.chosen}<p class="soft">{quote.more}</p>{/if}
  {#if quote.note}<p class="soft">{quote.note}</p>{/if}
  <MoneyBar {quote} {most} />
  <table>
    <tbody>
      {#each quote.charges as charge, n (n)}
        <tr
          ><td>{parcels > 1 && charge.parcel ? `${charge.parcel}: ` : ''}{charge.what}</td><td class="soft"
            >{charge.why}</td
          ><td class="figure">{charge.amount}</td></tr
        >
      {/each}
      <tr class="carrier"
        ><td>{quote.packs ? 'it asks, packing and all' : other ? 'that costs' : 'the carrier asks'}</td><td
        ></td><td class="figure">{quote.amount}</td></tr
      >
      {#if !quote.packs}
        <tr>
          <td>the box costs you</td>
          <td class="soft">{own.map(([name, amount]) => `${name} ${amount}`).join(', ')}</td>
          <td class="figure">{quote.own}</td>
        </tr>
      {/if}
    </tbody>
  </table>
</article>

<style>
  article {
    padding: 12px 16px 10px;
  }
  .risk {
    font-weight: 550;
    color: var(--stop);
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
  .soft,
  .kept,
  .beside {
    color: var(--soft);
    font-size: 14px;
  }
  .kept {
    color: var(--ink);
    border-left: 4px solid var(--amber);
    padding-left: 10px;
    margin: 4px 0;
  }
  .beside {
    display: flex;
    gap: 6px;
    align-items: center;
    margin-left: auto;
    white-space: nowrap;
    min-height: 28px;
    cursor: pointer;
  }
  .beside input {
    width: 18px;
    height: 18px;
    accent-color: var(--twine);
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
