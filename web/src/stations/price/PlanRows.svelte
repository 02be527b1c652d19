<script lang="ts">
  // A row a plan: what one compares in columns, what the money goes to as a bar beneath; a press unfolds its lines.
  import Wide from '../../lib/ui/Wide.svelte';
  import type { JobDesk } from '../../job/job.svelte';
  import type { PlanKey, PlanRow, PlanTable, TableRequest } from '../../lib/api/client';
  import { span } from '../../lib/days';
  import MoneyBar from '../../lib/ui/MoneyBar.svelte';
  import PlanLines from './PlanLines.svelte';

  interface Props {
    desk: JobDesk;
    found: PlanTable;
    sort: TableRequest['sort'];
    resort: (column: NonNullable<TableRequest['sort']>) => void;
    opened: PlanKey | null;
    unfold: (plan: PlanKey) => void;
    choose: (plan: PlanKey) => Promise<void>;
    byToday: (plan: PlanKey) => Promise<void>;
    compared: PlanKey[];
    compare: (plan: PlanKey, on: boolean) => void;
    /** Whether every plan is shown, so that the best of each service and box is marked. */
    all: boolean;
    /** Whether something is asked of plans beside that they are taken. */
    filtered: boolean;
  }
  let {
    desk,
    found,
    sort,
    resort,
    opened,
    unfold,
    choose,
    byToday,
    compared,
    compare,
    all,
    filtered,
  }: Props = $props();

  const COLUMNS = [
    'service',
    'rate plan',
    'box',
    'days',
    'postage',
    'surcharges',
    'cover',
    'packing',
    'total',
  ] as const;
  const WIDE = COLUMNS.length;
  const MOST_COMPARED = 4;

  const name = (key: PlanKey) => JSON.stringify(key);
  const nothing = (amount: string) => !/[1-9]/.test(amount);
  const most = $derived(Math.max(...[...found.rows, ...found.others].map((row) => Number(row.total)), 0));
  const marks = (row: PlanRow) => [
    ...(row.chosen ? ['chosen'] : []),
    ...row.best.filter((aim) => aim !== 'house rule'),
    ...(row.house_rule ? [`house rule: ${row.house_rule}`] : []),
    ...(all && row.best_of_service ? ['best of its service'] : []),
    ...(all && row.best_of_box ? ['best of its box'] : []),
  ];
  const named = (row: PlanRow, other: boolean) =>
    other ? `${row.carrier}, ${row.service.toLowerCase()}` : `${row.carrier} ${row.service}`;

  function stepped(event: KeyboardEvent): void {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (!step) return;
    const table = (event.currentTarget as HTMLElement).closest('table');
    const buttons = [...(table?.querySelectorAll<HTMLElement>('button.open') ?? [])];
    const next = buttons[buttons.indexOf(event.currentTarget as HTMLElement) + step];
    if (!next) return;
    event.preventDefault();
    next.focus();
  }
</script>

{#snippet line(row: PlanRow, other: boolean)}
  {@const open = opened !== null && name(opened) === name(row.key)}
  <tr
    class="plan hover:[background:color-mix(in_srgb,var(--twine-pale)_45%,transparent)]"
    class:chosen={row.chosen}
    class:open
    data-plan="{named(row, other)}, {row.programme}"
  >
    <th class="border-t-hair h-7 border-t pt-0.5 pr-2 pb-0 pl-3 align-baseline" scope="row">
      <button
        type="button"
        class="open"
        aria-expanded={open}
        onclick={() => unfold(row.key)}
        onkeydown={stepped}><span class="service text-note font-semibold">{named(row, other)}</span></button
      >
    </th>
    <td class="border-t-hair text-soft h-7 border-t pt-0.5 pr-2 pb-0 pl-1.5 align-baseline"
      >{row.programme}</td
    >
    <td class="box border-t-hair h-7 border-t pt-0.5 pr-2 pb-0 pl-1.5 align-baseline">{row.box}</td>
    <td
      class="figure border-t-hair h-7 border-t pt-0.5 pr-2 pb-0 pl-1.5 text-right align-baseline whitespace-nowrap"
      >{span(row.days)}</td
    >
    <td
      class="figure border-t-hair h-7 border-t pt-0.5 pr-2 pb-0 pl-1.5 text-right align-baseline whitespace-nowrap"
      >{row.costs.postage}</td
    >
    <td
      class="figure border-t-hair h-7 border-t pt-0.5 pr-2 pb-0 pl-1.5 text-right align-baseline whitespace-nowrap"
      >{nothing(row.costs.surcharges) ? '–' : row.costs.surcharges}</td
    >
    <td
      class="figure border-t-hair h-7 border-t pt-0.5 pr-2 pb-0 pl-1.5 text-right align-baseline whitespace-nowrap"
      class:risk={row.uncovered}
      >{row.uncovered
        ? 'no'
        : nothing(row.costs.cover)
          ? desk.job.value
            ? 'yes'
            : '–'
          : row.costs.cover}</td
    >
    <td
      class="figure border-t-hair h-7 border-t pt-0.5 pr-2 pb-0 pl-1.5 text-right align-baseline whitespace-nowrap"
      >{row.packs ? '–' : row.packing}</td
    >
    <td
      class="figure sum border-t-hair text-body h-7 border-t pt-0.5 pr-2 pb-0 pl-1.5 text-right align-baseline whitespace-nowrap"
      >{row.total}</td
    >
  </tr>
  <tr class="strip">
    <td class="pt-0 pr-2.5 pb-0.5 pl-3 align-baseline" colspan={WIDE}
      ><div class="grid min-h-2 grid-cols-[minmax(0,1fr)_auto] items-center gap-3">
        <MoneyBar costs={row.costs} {most} /><small
          class="text-twine font-strong text-fine leading-[1.2] whitespace-nowrap"
          >{#if row.placeholder}<span class="text-stop">placeholder prices</span>{marks(row).length
              ? ', '
              : ''}{/if}{marks(row).join(', ')}</small
        >
      </div></td
    >
  </tr>
  {#if open}
    <tr class="lines">
      <td class="border-b-twine border-b-2 px-3 pt-1.5 pb-3.5 align-baseline" colspan={WIDE}>
        <PlanLines
          {desk}
          {row}
          name="{named(row, other)}, {row.programme}"
          choose={() => choose(row.key)}
          byToday={() => byToday(row.key)}
          compared={compared.some((one) => name(one) === name(row.key))}
          comparable={compared.length < MOST_COMPARED}
          compare={(on) => compare(row.key, on)}
        />
      </td>
    </tr>
  {/if}
{/snippet}

<Wide>
  <table class="sheet plans text-note w-full border-collapse">
    <thead>
      <tr>
        {#each COLUMNS as column, n (column)}
          <th
            class="pt-0.5 pr-2 pb-0 pl-1.5 align-baseline"
            scope="col"
            class:right={n > 2}
            aria-sort={sort === column ? 'ascending' : undefined}
            ><button
              class="font-strong text-soft hover:text-ink min-h-7.5 [text-align:inherit] whitespace-nowrap hover:underline"
              type="button"
              onclick={() => resort(column)}>{column}{sort === column ? ' ▾' : ''}</button
            ></th
          >
        {/each}
      </tr>
    </thead>
    <tbody>
      {#each found.rows as row (name(row.key))}{@render line(row, false)}{:else}
        <tr
          ><td colspan={WIDE} class="text-soft px-3 py-2.5 align-baseline"
            >{filtered ? 'No plan is like that.' : 'No service takes it; each says why below.'}</td
          ></tr
        >
      {/each}
      {#if found.left_out}
        <tr
          ><td colspan={WIDE} class="text-soft px-3 py-2.5 align-baseline"
            >{found.left_out} more; words or another choice under Show make it fewer.</td
          ></tr
        >
      {/if}
      {#if found.others.length}
        <tr
          ><th colspan={WIDE} scope="colgroup" class="other px-3 pt-3 pb-0.75 align-baseline font-semibold"
            >Other ways to send it</th
          ></tr
        >
        {#each found.others as row (name(row.key))}{@render line(row, true)}{/each}
      {/if}
    </tbody>
  </table>
</Wide>

<style>
  thead button::first-letter {
    text-transform: uppercase;
  }

  .right {
    text-align: right;
    white-space: nowrap;
  }
  thead th:nth-child(1) {
    width: 26%;
  }
  thead th:nth-child(3) {
    width: 24%;
  }

  .chosen {
    box-shadow: inset 4px 0 0 var(--twine);
  }

  .plan.open {
    background: var(--twine-pale);
  }
  button.open {
    text-align: left;
    color: var(--ink);
    width: 100%;
    min-height: 26px;
  }
  button.open::before {
    content: '▸ ';
    color: var(--soft);
  }
  button.open[aria-expanded='true']::before {
    content: '▾ ';
  }

  .risk {
    color: var(--stop);
  }

  /* On a phone the sum stays in sight; the row unfolds to all else. */
  @media (max-width: 700px) {
    thead th:nth-child(1) {
      width: 42%;
    }
    thead th:nth-child(2),
    .plan > :nth-child(2),
    thead th:nth-child(n + 5):nth-child(-n + 8),
    .plan > :nth-child(n + 5):nth-child(-n + 8) {
      display: none;
    }
  }
</style>
