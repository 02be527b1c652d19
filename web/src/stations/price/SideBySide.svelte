<script lang="ts">
  // Up to four plans side by side, row by row: where the money goes, what is billed, the box, how each part is kept. The
  // least of a row of money stands out; below the sums, what each is more than the cheapest of them.
  import { Asked } from '../../lib/asked.svelte';
  import type { JobDesk } from '../../job/job.svelte';
  import { calls, type ComparedRows, type PlanKey, type PlanUnfolded } from '../../lib/api/client';
  import { span } from '../../lib/days';
  import Measured from '../../lib/ui/Measured.svelte';

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

<section class="sheet" aria-label="Compare plans" bind:offsetHeight={height}>
  <h2>
    <button class="open" aria-expanded={open} onclick={() => (open = !open)}
      >Compare plans <span class="soft">{plans.length} of at most 4</span></button
    >
  </h2>
  {#if trouble}<p class="no" role="status">{trouble}</p>{/if}
  {#if open && found.length}
    <div class="scroll">
      <table>
        <thead>
          <tr>
            <td></td>
            {#each found as plan (JSON.stringify(plan.key))}
              <th scope="col"
                ><span>{plan.quote.carrier} {plan.quote.service}</span><small
                  >{plan.quote.programme}, {plan.box}</small
                >
                <button
                  class="off"
                  aria-label="Remove {plan.quote.carrier} {plan.quote.service}, {plan.quote.programme}"
                  onclick={() => drop(plan.key)}>×</button
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
                  >{costs(amount) ? amount : '–'}{#if label === 'surcharges' && found[n]}<small
                      >{[...new Set(extras(found[n]))].join(', ')}</small
                    >{/if}</td
                >
              {/each}
            </tr>
          {/each}
          <tr class="sum">
            <th scope="row">total</th>
            {#each found as plan, n (n)}
              {@const over = compared.total?.over[n]}
              <td class="figure" class:least={compared.total?.least[n]}
                >{plan.quote.total}<small
                  >{over ? `${over} more` : compared.total ? 'lowest' : '\u00a0'}</small
                ></td
              >
            {/each}
          </tr>
          {#each facts as { label, cells } (label)}
            <tr>
              <th scope="row">{label}</th>
              {#each cells as cell, n (n)}
                <td class="fact" class:figure={MEASURED.has(label)}
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
  .fact {
    font-size: 14px;
    padding-right: 30px;
  }
  .no {
    color: var(--stop);
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
