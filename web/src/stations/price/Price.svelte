<script lang="ts">
  // Price: every way to send it in one table, what else one would choose than the cheapest and why, what carriers say
  // when they are asked themselves, and what it costs in several parcels.
  import Choose from '../../lib/ui/Choose.svelte';
  import { untrack } from 'svelte';
  import { Asked } from '../../lib/asked.svelte';
  import { attempt } from '../../lib/attempt';
  import type { JobDesk } from '../../job/job.svelte';
  import HouseRules from '../../job/HouseRules.svelte';
  import NotYet from '../../job/NotYet.svelte';
  import { calls, type PlanKey, type TableRequest } from '../../lib/api/client';
  import { toast } from '../../lib/toast.svelte';
  import MoneyKey from '../../lib/ui/MoneyKey.svelte';
  import BeginTariff from '../../rooms/tariffs/BeginTariff.svelte';
  import Alternatives from './Alternatives.svelte';
  import InParcels from './InParcels.svelte';
  import Ladder from './Ladder.svelte';
  import OverTheWire from './OverTheWire.svelte';
  import PlanRows from './PlanRows.svelte';
  import SideBySide from './SideBySide.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const SHOWN = ['best of each service', 'best of each box', 'in one box', 'all'] as const;
  const NAMES: Partial<Record<(typeof SHOWN)[number], string>> = { 'in one box': 'the selected box' };
  // Whoever has chosen a box looks at what services ask for that one first.
  let show = $state<TableRequest['show']>(
    untrack(() => (desk.job.chosen?.box ? 'in one box' : 'best of each service')),
  );
  let sort = $state<TableRequest['sort']>('total');
  let words = $state('');
  let covered = $state(false);
  let days = $state<number | null>(null);
  let orders = $state<number | null>(1);

  let opened = $state.raw<PlanKey | null>(null);
  let compared = $state.raw<PlanKey[]>([]);

  /** Why it does not go in one parcel: no plan is asked for then, but for how it is divided. */
  const several = $derived(desk.work.view?.several ?? '');
  const whole = $derived(desk.work.view?.missing.length === 0 && !several);
  const asked = new Asked(() => {
    void desk.work.view; // anew whenever the job was worked out anew
    const body = {
      show,
      sort,
      way: desk.work.way?.way ?? '',
      words,
      covered,
      days_at_most: days && days >= 1 ? Math.min(Math.round(days), 365) : null,
      orders: orders && orders >= 1 ? Math.min(Math.round(orders), 100_000) : 1,
    };
    return whole ? (signal) => calls.plans({ job: desk.job, ...body }, signal) : null;
  });
  const found = $derived(asked.answer);
  const trouble = $derived(asked.trouble);

  const same = (a: PlanKey | null, b: PlanKey) => a !== null && JSON.stringify(a) === JSON.stringify(b);

  async function choose(plan: PlanKey): Promise<void> {
    await attempt(async () => {
      const chosen = await calls.choosePlan({ job: desk.job, plan });
      const undo = desk.choices.keepChosen(chosen);
      toast.show(`${plan.carrier} ${plan.service} is chosen.`, undo);
    });
  }

  function compare(plan: PlanKey, on: boolean): void {
    compared = on ? [...compared, plan] : compared.filter((one) => !same(one, plan));
  }

  async function byToday(plan: PlanKey): Promise<void> {
    await attempt(async () => {
      const undo = await desk.choices.priceByToday(plan);
      toast.show(`${plan.carrier} ${plan.service} is priced by its tariff of today.`, undo);
    });
  }

  function unfold(plan: PlanKey): void {
    opened = same(opened, plan) ? null : plan;
  }
</script>

<HouseRules {desk} />
{#if whole}
  <p class="no text-stop empty:hidden" role="alert">{trouble}</p>
  {#if found}
    <div class:waits={desk.work.stale}>
      {#if found.alternatives.length}
        <Alternatives {found} bind:orders {choose} />
      {/if}
      <section aria-label="All plans">
        <div class="mx-0 mt-4.5 mb-1.5 flex flex-wrap items-center gap-x-3.5 gap-y-1.5">
          <h2 class="mr-auto">All plans</h2>
          <Choose
            id="plans-shown"
            labelled="beside"
            label="Show"
            place="w-43 h-9"
            bind:value={show}
            options={SHOWN.map((one) => [one, NAMES[one] ?? one] as const)}
          />
          <label class="listed"
            >words
            <input
              class="field text-ink h-9 w-32.5"
              id="plans-words"
              bind:value={words}
              maxlength="120"
              placeholder="tray ground"
            /></label
          >
          <label class="listed"
            >days at most
            <input
              class="field text-ink h-9 w-15"
              id="plans-days"
              type="number"
              min="1"
              max="365"
              bind:value={days}
            /></label
          >
          <label class="listed tick"
            ><input
              class="accent-twine h-4.5 w-4.5"
              type="checkbox"
              id="plans-covered"
              bind:checked={covered}
            /> covered only</label
          >
        </div>
        {#if show === 'in one box' && desk.work.way}
          <p class="text-soft text-note mb-1">In the selected box: {desk.work.way.title}.</p>
          {#if desk.work.way.too_large}
            <p class="no text-stop empty:hidden">
              It cannot be cut from the sheets in stock: {desk.work.way.too_large}.
            </p>
          {/if}
        {/if}
        <PlanRows
          {desk}
          {found}
          {sort}
          resort={(column) => (sort = column)}
          {opened}
          {unfold}
          {choose}
          {byToday}
          {compared}
          {compare}
          all={show === 'all'}
          filtered={Boolean(words.trim() || covered || days)}
        />
        <MoneyKey />
      </section>
      {#if desk.work.way}
        <a
          class="link"
          href="/api/jobs/{desk.id}/prices.csv?way={desk.work.way.way}"
          download
          onclick={(event) => desk.saver.follow(event, 'A comparison')}
          >Prices of the selected box ({desk.work.way.title.toLowerCase()}) as CSV</a
        >
      {/if}
      <InParcels {desk} />
      <Ladder {desk} />
      {#if desk.work.way}<OverTheWire {desk} way={desk.work.way.way} />{/if}
      {#if !found.rows.length && !found.others.length && !found.refused.length && !found.others_refused.length}
        <section class="sheet mt-3 p-5" aria-label="No tariff yet">
          <p class="mb-3">
            <b>No carrier's tariff is here yet.</b> How does your first carrier price? Its tariff begins with placeholder
            prices, marked on every total, until you paste its own under Tariffs.
          </p>
          <BeginTariff begun={() => desk.touch()} />
        </section>
      {/if}
      {#if found.refused.length || found.others_refused.length}
        <h2 class="mt-5">Services that cannot take it</h2>
        <ul>
          {#each found.refused as no, n (n)}
            <li class="border-t-hair text-soft border-t px-0 py-1.5">
              <b class="text-ink mr-2">{no.carrier} {no.service}, {no.programme}</b>
              {no.why}
            </li>
          {/each}
          {#each found.others_refused as no, n (n)}
            <li class="border-t-hair text-soft border-t px-0 py-1.5">
              <b class="text-ink mr-2">{no.carrier}, {no.service.toLowerCase()}</b>
              {no.why}
            </li>
          {/each}
        </ul>
      {/if}
    </div>
    {#if compared.length > 1}
      <SideBySide {desk} plans={compared} drop={(plan) => compare(plan, false)} />
    {/if}
  {:else}
    <div class="sheet wait h-[420px]" aria-busy="true"></div>
  {/if}
{:else if several && desk.work.view?.missing.length === 0}
  <InParcels {desk} />
{:else if desk.work.view}
  <NotYet {desk} what="price" />
{/if}

<style>
  .waits {
    color: var(--soft);
  }
</style>
