<script lang="ts">
  // Up to four plans side by side, row by row: where the money goes, what is billed, the box, how each part is kept. The
  // least of a row of money stands out; below the sums, what each is more than the cheapest of them.
  import { Asked } from '../../lib/asked.svelte';
  import type { JobDesk } from '../../job/job.svelte';
  import { calls, type ComparedRows, type PlanKey, type PlanUnfolded } from '../../lib/api/client';
  import { span } from '../../lib/days';
  import Measured from '../../lib/ui/Measured.svelte';
  import Remove from '../../lib/ui/Remove.svelte';

  interface Props {
    desk: JobDesk;
    plans: PlanKey[];
    drop: (plan: PlanKey) => void;
  }
  let { desk, plans, drop }: Props = $props();

  let open = $state(true);
  let height = $state(0);
  // It lies over the foot of the page: what the keyboard goes to is scrolled clear of it.
  $effect(() => {
    document.documentElement.style.scrollPaddingBottom = `${height + 12}px`;
    return () => {
      document.documentElement.style.scrollPaddingBottom = '';
    };
  });

  const asked = new Asked(() => {
    const asks = plans;
    void desk.work.view; // anew whenever the job was worked out anew
    return (signal) => Promise.all(asks.map((plan) => calls.plan({ job: desk.job, plan }, signal)));
  });
  const found = $derived<PlanUnfolded[]>(asked.answer ?? []);
  const trouble = $derived(asked.trouble);

  const ROWS = [
    ['postage', (plan: PlanUnfolded) => plan.quote.costs.postage],
    ['surcharges', (plan: PlanUnfolded) => plan.quote.costs.surcharges],
    ['cover', (plan: PlanUnfolded) => plan.quote.costs.cover],
    ['box', (plan: PlanUnfolded) => plan.quote.costs.box],
    ['wrap', (plan: PlanUnfolded) => plan.quote.costs.wrap],
    ['fill', (plan: PlanUnfolded) => plan.quote.costs.fill],
    ['tape', (plan: PlanUnfolded) => plan.quote.costs.tape],
    ['time', (plan: PlanUnfolded) => plan.quote.costs.labour],
  ] as const;
  const MEASURED = new Set(['outside', 'inside', 'weighs', 'billed as']);
  /** What is told beside the money, those of it in which they differ. */
  const facts = $derived(
    (
      [
        ['billed as', (plan: PlanUnfolded) => [plan.quote.billed, ...plan.quote.beside].join(' + ')],
        ['days', (plan: PlanUnfolded) => span(plan.quote.days)],
        ['not covered', (plan: PlanUnfolded) => plan.quote.uncovered || '–'],
        ['box, board', (plan: PlanUnfolded) => (plan.board ? `${plan.box}, ${plan.board}` : plan.box)],
        ['outside', (plan: PlanUnfolded) => plan.outside],
        ['inside', (plan: PlanUnfolded) => plan.inside],
        ['weighs', (plan: PlanUnfolded) => plan.weighs],
        ['air', (plan: PlanUnfolded) => `${plan.air_percent} %`],
        ['time', (plan: PlanUnfolded) => `${plan.minutes} min, ${plan.cuts} cut`],
        ['fill', (plan: PlanUnfolded) => plan.fill || 'none'],
        ['margin', (plan: PlanUnfolded) => plan.margin],
        ...(found[0]?.parts ?? []).map(
          (part, n) => [part.name, (plan: PlanUnfolded) => plan.parts[n]?.says ?? ''] as const,
        ),
      ] as const
    )
      .map(([label, of]) => ({ label, cells: found.map(of) }))
      .filter(({ cells }) => new Set(cells).size > 1),
  );

  const amounts = $derived<Record<string, string[]>>({
    ...Object.fromEntries(ROWS.map(([label, of]) => [label, found.map(of)])),
    total: found.map((plan) => plan.quote.total),
  });
  /** What stands out in each row, as the shop reckons it. */
  const comparing = new Asked(() => {
    const body = { currency: found[0]?.quote.currency ?? '', rows: amounts };
    return body.currency ? (signal) => calls.compare(body, signal) : null;
  });
  const compared = $derived<ComparedRows>(comparing.answer ?? {});
  const rows = $derived(ROWS.filter(([label]) => !compared[label]?.nothing));
  const costs = (amount: string) => /[1-9]/.test(amount);
  const extras = (plan: PlanUnfolded) =>
    plan.quote.charges
      .filter((charge) => !['postage', 'cover'].includes(charge.kind))
      .map((charge) => charge.what);
</script>

<section
  class="sheet border-t-twine sticky bottom-0 z-2 border-t-3 px-4 pt-1.5 pb-2"
  aria-label="Compare plans"
  bind:offsetHeight={height}
>
  <h2>
    <button class="open min-h-8.5 w-full text-left" aria-expanded={open} onclick={() => (open = !open)}
      >Compare plans <span class="text-soft font-plain text-small">{plans.length} of at most 4</span></button
    >
  </h2>
  {#if trouble}<p class="no text-stop" role="status">{trouble}</p>{/if}
  {#if open && found.length}
    <div class="relative max-h-[52vh] overflow-auto">
      <table class="w-full table-fixed border-collapse">
        <thead>
          <tr>
            <td class="border-0 py-0.75 pr-0 pl-3.5 text-right align-top"></td>
            {#each found as plan (JSON.stringify(plan.key))}
              <th
                class="text-ink font-title text-body relative border-0 py-0.75 pr-7.5 pl-3.5 text-right align-top"
                scope="col"
                ><span>{plan.quote.carrier} {plan.quote.service}</span><small
                  class="text-soft font-plain text-small block font-sans"
                  >{plan.quote.programme}, {plan.box}</small
                >
                <Remove
                  of="{plan.quote.carrier} {plan.quote.service}, {plan.quote.programme}"
                  go={() => drop(plan.key)}
                  place="absolute top-0 right-0"
                /></th
              >
            {/each}
          </tr>
        </thead>
        <tbody>
          {#each rows as [label] (label)}
            <tr>
              <th class="border-t-hair border-t py-0.75 pr-0 pl-3.5 text-left align-top" scope="row"
                >{label}</th
              >
              {#each amounts[label] ?? [] as amount, n (n)}
                <td
                  class="figure border-t-hair border-t py-0.75 pr-0 pl-3.5 text-right align-top"
                  class:least={compared[label]?.least[n]}
                  >{costs(amount) ? amount : '–'}{#if label === 'surcharges' && found[n]}<small
                      class="text-soft font-plain text-small block font-sans"
                      >{[...new Set(extras(found[n]))].join(', ')}</small
                    >{/if}</td
                >
              {/each}
            </tr>
          {/each}
          <tr class="sum">
            <th class="border-t-hair border-t py-0.75 pr-0 pl-3.5 text-left align-top" scope="row">total</th>
            {#each found as plan, n (n)}
              {@const over = compared.total?.over[n]}
              <td
                class="figure border-t-hair text-lead border-t py-0.75 pr-0 pl-3.5 text-right align-top"
                class:least={compared.total?.least[n]}
                >{plan.quote.total}<small class="text-soft font-plain text-small block font-sans"
                  >{over ? `${over} more` : compared.total ? 'lowest' : '\u00a0'}</small
                ></td
              >
            {/each}
          </tr>
          {#each facts as { label, cells } (label)}
            <tr>
              <th class="border-t-hair border-t py-0.75 pr-0 pl-3.5 text-left align-top" scope="row"
                >{label}</th
              >
              {#each cells as cell, n (n)}
                <td
                  class="border-t-hair text-note border-t py-0.75 pr-7.5 pl-3.5 text-right align-top"
                  class:figure={MEASURED.has(label)}
                  >{#if MEASURED.has(label)}<Measured text={cell} />{:else}{cell}{/if}</td
                >
              {/each}
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
  {/if}
</section>

<style>
  .open::before {
    content: '▸ ';
  }
  .open[aria-expanded='true']::before {
    content: '▾ ';
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
</style>
