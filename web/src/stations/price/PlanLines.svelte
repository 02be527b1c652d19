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

<article class="min-h-45" aria-label={name}>
  <p class="no text-stop empty:hidden" role="alert">{trouble}</p>
  {#if plan && quote}
    <div class="top mb-1 flex items-center gap-3.5">
      <p class="text-soft text-note mr-auto">
        Outside <Measured text={plan.outside} />, {billed}{post.length ? `; ${post.join(', ')}` : ''}
      </p>
      <label
        class="beside text-soft text-note flex min-h-7 cursor-pointer items-center gap-1.5 whitespace-nowrap"
        ><input
          class="accent-twine h-4.5 w-4.5"
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
      <p class="kept border-l-amber text-note mx-0 my-1 border-l-4 pl-2.5">
        Priced by version {quote.kept.version} of its tariff, which this job keeps. Today's
        {quote.kept.amount_today === null || quote.kept.amount_today === undefined
          ? 'does not take it.'
          : `asks ${quote.kept.amount_today}, not ${quote.amount}.`}
        {#if quote.kept.amount_today}<button class="link" onclick={() => void byToday()}
            >Price by today's</button
          >{/if}
      </p>
    {/if}
    {#if quote.uncovered}<p class="no text-stop empty:hidden">Not covered: {quote.uncovered}.</p>{/if}
    {#if quote.note}<p class="text-soft text-note">{quote.note}</p>{/if}
    <table class="mb-2.5 w-full border-collapse">
      <tbody>
        {#each quote.charges as charge, n (n)}
          <tr
            ><td class="border-t-hair border-t py-0.5 pr-3 pl-0 align-baseline first:w-47.5"
              >{parcels > 1 && charge.parcel ? `${charge.parcel}: ` : ''}{charge.what}</td
            ><td
              class="border-t-hair text-soft text-note border-t py-0.5 pr-3 pl-0 align-baseline first:w-47.5"
              >{charge.why}</td
            ><td
              class="figure border-t-hair border-t px-0 py-0.5 text-right align-baseline whitespace-nowrap first:w-47.5"
              >{charge.amount}</td
            ></tr
          >
        {/each}
        <tr class="carrier"
          ><td class="border-t-hair border-t py-0.5 pr-3 pl-0 align-baseline font-semibold first:w-47.5"
            >carrier total{quote.packs ? ', packing included' : ''}</td
          ><td class="border-t-hair border-t py-0.5 pr-3 pl-0 align-baseline font-semibold first:w-47.5"
          ></td><td
            class="figure border-t-hair border-t px-0 py-0.5 text-right align-baseline font-semibold whitespace-nowrap first:w-47.5"
            >{quote.amount}</td
          ></tr
        >
        {#if !quote.packs}
          <tr>
            <td class="border-t-hair border-t py-0.5 pr-3 pl-0 align-baseline first:w-47.5">packing cost</td>
            <td
              class="border-t-hair text-soft text-note border-t py-0.5 pr-3 pl-0 align-baseline first:w-47.5"
              >{own.map(([of, amount]) => `${of} ${amount}`).join(', ')}</td
            >
            <td
              class="figure border-t-hair border-t px-0 py-0.5 text-right align-baseline whitespace-nowrap first:w-47.5"
              >{quote.own}</td
            >
          </tr>
        {/if}
      </tbody>
    </table>
    <StepMap {desk} way={plan.key.item ? `${plan.key.way}/${plan.key.item}` : plan.key.way} {quote} />
  {/if}
</article>
