<script lang="ts">
  // What it would cost in several parcels that go together, and what each of them holds.
  import Choose from '../../lib/ui/Choose.svelte';
  import { onDestroy, untrack } from 'svelte';
  import { Newest } from '../../lib/attempt';
  import type { JobDesk } from '../../job/job.svelte';
  import { calls, sentence, type ParcelsView } from '../../lib/api/client';
  import { toast } from '../../lib/toast.svelte';
  import Measured from '../../lib/ui/Measured.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const COUNTS = [1, 2, 3, 4, 5, 6, 8, 10, 12, 16, 20, 30, 50, 100];
  const things = $derived(desk.work.view?.layout?.parts.length ?? 0);
  /** Why it does not go in one parcel; then it is divided from the first, into as few as that takes or more. */
  const several = $derived(desk.work.view?.several ?? '');
  const least = $derived(desk.work.view?.parcels_least ?? 1);
  const atMost = $derived(Math.max(desk.typed.parcelsAtMost, least));
  const counts = $derived(
    [...new Set([...COUNTS, least])].filter((count) => count >= least).sort((a, b) => a - b),
  );
  let found = $state.raw<ParcelsView | null>(null);
  let asking = $state(false);
  const newest = new Newest();
  let trouble = $state('');
  /** Of what it was worked out: figures of another state of the job are not shown as this one's. */
  let of = $state(-1);
  const stale = $derived(of !== desk.strokes);

  async function divide(): Promise<void> {
    trouble = '';
    asking = true;
    const { strokes } = desk;
    const job = { ...desk.job, parcels_at_most: atMost };
    const show = (view: ParcelsView): void => {
      found = view;
      of = strokes;
    };
    await newest.ask(
      async (signal) => {
        // The first that come to mind are there while the others are looked for.
        show(await calls.inParcels({ job, effort: 'quick' }, signal));
        return calls.inParcels({ job, effort: 'normal' }, signal);
      },
      show,
      tell,
    );
    asking = newest.waits;
  }
  onDestroy(() => newest.stop());
  $effect(() => {
    if (several && !desk.work.stale) untrack(() => !found && !asking && void divide());
  });

  let making = $state(false);
  /** Each parcel becomes a job on the bench, to be cut and packed by itself. */
  async function makeJobs(plan: ParcelsView['plans'][number]): Promise<void> {
    making = true;
    trouble = '';
    const made: string[] = [];
    const archive = async () => {
      await Promise.all(made.map((id) => calls.archive(id)));
    };
    try {
      for (const parcel of plan.parcels) made.push((await calls.addJob(parcel.job)).id);
      toast.show(`${made.length} jobs are on the bench.`, archive);
    } catch (fault) {
      tell(fault);
      await archive().catch(tell);
    } finally {
      making = false;
    }
  }
  const tell = (fault: unknown) => {
    trouble = sentence(fault);
  };

  function allow(count: string): void {
    desk.typed.parcelsAtMost = Number(count);
    desk.touch();
  }
</script>

{#if things > 1 || several}
  <section class="parcels mt-5" aria-label="In several parcels">
    {#if several}<p class="bg-amber-pale border-l-amber-mark mb-3 border-l-4 p-3">{several}.</p>{/if}
    <div class="flex flex-wrap items-end gap-x-4 gap-y-2.5">
      <h2 class="mr-auto">In several parcels</h2>
      <Choose
        id="parcels-at-most"
        labelled="beside"
        label="At most"
        place="w-32.5 h-9"
        value={String(atMost)}
        change={allow}
        options={counts.map(
          (count) => [String(count), count === 1 ? 'one parcel' : `${count} parcels`] as const,
        )}
      />
      {#if atMost > 1}
        <button type="button" class="btn" disabled={asking} onclick={() => void divide()}
          >{asking ? 'Dividing…' : 'Divide it'}</button
        >
      {/if}
    </div>
    <p class="no text-stop min-h-[1.4em]" role="alert">{trouble}</p>
    {#if found && atMost > 1}
      <div class:stale aria-live="polite">
        {#if stale}<p class="text-soft text-note">Something was typed since; divide it again.</p>{/if}
        {#if found.plans.length === 0}
          <p class="text-soft text-note">
            No service takes it in {several ? `up to ${atMost} parcels; allow more` : 'two parcels or more'}.
          </p>
        {/if}
        {#each found.plans as plan, n (n)}
          <article class="sheet mt-2.5 px-4 py-2.5">
            <h3 class="font-title flex justify-between gap-3">
              <span>{plan.parcels.length} parcels, {plan.carrier} {plan.service}, {plan.programme}</span>
              <span class="figure">{plan.total}</span>
            </h3>
            <p class="text-soft text-note">
              {plan.against}; postage {plan.postage}, boxes and packing {plan.own}; {plan.days[0]}–{plan
                .days[1]} days
            </p>
            <table class="text-note mt-1.5 w-full">
              <thead>
                <tr
                  ><th
                    class="text-soft border-b-hair border-b py-0.75 pr-2.5 pl-0 text-left align-baseline font-medium"
                    >Holds</th
                  ><th
                    class="text-soft border-b-hair border-b py-0.75 pr-2.5 pl-0 text-left align-baseline font-medium"
                    >Box</th
                  ><th
                    class="text-soft border-b-hair border-b py-0.75 pr-2.5 pl-0 text-left align-baseline font-medium"
                    >Outside</th
                  ><th
                    class="text-soft border-b-hair border-b py-0.75 pr-2.5 pl-0 text-left align-baseline font-medium"
                    >Weighs</th
                  ><th
                    class="text-soft border-b-hair border-b py-0.75 pr-2.5 pl-0 text-left align-baseline font-medium"
                    >Billed</th
                  ></tr
                >
              </thead>
              <tbody>
                {#each plan.parcels as parcel, k (k)}
                  <tr>
                    <td class="border-b-hair border-b py-0.75 pr-2.5 pl-0 align-baseline"
                      >{parcel.holds.join(', ')}</td
                    >
                    <td class="border-b-hair border-b py-0.75 pr-2.5 pl-0 align-baseline">{parcel.box}</td>
                    <td class="figure border-b-hair border-b py-0.75 pr-2.5 pl-0 align-baseline"
                      ><Measured text={parcel.outside} /></td
                    >
                    <td class="figure border-b-hair border-b py-0.75 pr-2.5 pl-0 align-baseline"
                      ><Measured text={parcel.weight} /></td
                    >
                    <td class="figure border-b-hair border-b py-0.75 pr-2.5 pl-0 align-baseline"
                      ><Measured text={parcel.billed} /></td
                    >
                  </tr>
                {/each}
              </tbody>
            </table>
            <p class="make">
              <button
                type="button"
                class="link"
                disabled={making || stale}
                onclick={() => void makeJobs(plan)}>Make a job of each parcel</button
              >
            </p>
          </article>
        {/each}
      </div>
    {/if}
  </section>
{/if}

<style>
  .stale article {
    color: var(--soft);
  }
</style>
