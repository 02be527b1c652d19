<script lang="ts">
  // A plan unfolded: every line that makes up its sum, its box, and where the nearest cheaper point is.
  import { Asked } from '../../lib/asked.svelte';
  import type { JobDesk } from '../../job/job.svelte';
  import { calls, type PlanRow } from '../../lib/api/client';
  import Measured from '../../lib/ui/Measured.svelte';
  import StepMap from './StepMap.svelte';

  interface Props {
    desk: JobDesk;
    row: PlanRow;
    /** Of its service and programme. */
    name: string;
    choose: () => Promise<void>;
    byToday: () => Promise<void>;
    /** Whether it is laid side by side with others, and whether it may be. */
    compared: boolean;
    comparable: boolean;
    compare: (on: boolean) => void;
  }
  let { desk, row, name, choose, byToday, compared, comparable, compare }: Props = $props();

  const asked = new Asked(() => {
    const plan = row.key;
    void desk.work.view; // anew whenever the job was worked out anew
    return (signal) => calls.plan({ job: desk.job, plan }, signal);
  });
  const plan = $derived(asked.answer);
  const trouble = $derived(asked.trouble);

  const quote = $derived(plan?.quote);
  const parcels = $derived((quote?.beside.length ?? 0) + 1);
  const own = $derived(
    quote
      ? (
          [
            ['box', quote.costs.box],
            ['wrap', quote.costs.wrap],
            ['fill', quote.costs.fill],
            ['tape', quote.costs.tape],
            ['time', quote.costs.labour],
          ] as const
        ).filter(([, amount]) => /[1-9]/.test(amount))
      : [],
  );
  const billed = $derived.by(() => {
    if (!quote) return '';
    const bill =
      parcels > 1
        ? `${parcels} parcels, billed as ${[quote.billed, ...quote.beside].join(' and ')}`
        : `billed as ${quote.billed}`;
    return quote.dimensional
      ? `${bill}; weighs ${quote.actual}, dimensional weight ${quote.dimensional}`
      : bill;
  });
  const post = $derived(
    quote
      ? [
          quote.tracked === true ? 'tracked' : quote.tracked === false ? 'not tracked' : '',
          quote.form === 'parcel' ? '' : `as a ${quote.form}`,
        ].filter(Boolean)
      : [],
  );
</script>

<article class="unfolded" aria-label={name}>
  <p class="no" role="alert">{trouble}</p>
  {#if plan && quote}
    <div class="top">
      <p class="soft">
        Outside <Measured text={plan.outside} />, {billed}{post.length ? `; ${post.join(', ')}` : ''}
      </p>
      <label class="beside"
        ><input
          type="checkbox"
          checked={compared}
          disabled={!compared && !comparable}
          onchange={(event) => compare(event.currentTarget.checked)}
          aria-label="Compare {name}"
        /> compare</label
      >
      <button
        type="button"
        class="btn"
        class:btn-main={!row.chosen}
        disabled={row.chosen}
        onclick={() => void choose()}>{row.chosen ? 'Chosen' : 'Choose'}</button
      >
    </div>
    {#if quote.kept}
      <p class="kept">
        Priced by version {quote.kept.version} of its tariff, which this job keeps. Today's
        {quote.kept.amount_today === null || quote.kept.amount_today === undefined
          ? 'does not take it.'
          : `asks ${quote.kept.amount_today}, not ${quote.amount}.`}
        {#if quote.kept.amount_today}<button class="link" onclick={() => void byToday()}
            >Price by today's</button
          >{/if}
      </p>
    {/if}
    {#if quote.uncovered}<p class="no">Not covered: {quote.uncovered}.</p>{/if}
    {#if quote.note}<p class="soft">{quote.note}</p>{/if}
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
          ><td>carrier total{quote.packs ? ', packing included' : ''}</td><td></td><td class="figure"
            >{quote.amount}</td
          ></tr
        >
        {#if !quote.packs}
          <tr>
            <td>box and packing</td>
            <td class="soft">{own.map(([of, amount]) => `${of} ${amount}`).join(', ')}</td>
            <td class="figure">{quote.own}</td>
          </tr>
        {/if}
      </tbody>
    </table>
    <StepMap {desk} way={plan.key.item ? `${plan.key.way}/${plan.key.item}` : plan.key.way} {quote} />
  {/if}
</article>

<style>
  .unfolded {
    min-height: 180px;
  }
  .top {
    display: flex;
    align-items: center;
    gap: 14px;
    margin-bottom: 4px;
  }
  .top p {
    margin-right: auto;
  }
  .soft,
  .beside {
    color: var(--soft);
    font-size: 14px;
  }
  .beside {
    display: flex;
    gap: 6px;
    align-items: center;
    white-space: nowrap;
    min-height: 28px;
    cursor: pointer;
  }
  .beside input {
    width: 18px;
    height: 18px;
    accent-color: var(--twine);
  }
  .kept {
    border-left: 4px solid var(--amber);
    padding-left: 10px;
    margin: 4px 0;
    font-size: 14px;
  }
  .no {
    color: var(--stop);
  }
  .no:empty {
    display: none;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    margin-bottom: 10px;
  }
  td {
    padding: 2px 12px 2px 0;
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
