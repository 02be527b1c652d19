<script lang="ts">
  // Two versions of a tariff, or the prices of two days: what differs, and what a list of parcels costs by both.
  import Lines from '../../lib/ui/Lines.svelte';
  import Wide from '../../lib/ui/Wide.svelte';
  import { attempt } from '../../lib/attempt';
  import { calls, type ComparedTariffs, type TariffRow } from '../../lib/api/client';
  import { dayInWords, today } from '../../lib/days';
  import Choose from '../../lib/ui/Choose.svelte';
  import DifferenceTable from '../../lib/ui/DifferenceTable.svelte';
  import Tick from '../../lib/ui/Tick.svelte';
  import { shop } from '../../lib/shop.svelte';

  interface Props {
    row: TariffRow;
  }
  let { row }: Props = $props();

  const thisDay = today();
  const sides = $derived([
    [`day ${thisDay}`, 'Prices of today'] as const,
    ...row.coming.map((one) => [`day ${one}`, `Prices from ${dayInWords(one)}`] as const),
    ...row.versions.map(
      ([n, saved]) => [`version ${n}`, `Version ${n}, saved ${dayInWords(saved)}`] as const,
    ),
  ]);
  const begun = $derived(
    row.coming[0]
      ? ([`day ${thisDay}`, `day ${row.coming[0]}`] as const)
      : ([`version ${row.versions[1]?.[0] ?? row.revision}`, `version ${row.revision}`] as const),
  );
  let picked = $state<{ was?: string; now?: string }>({});
  const was = $derived(picked.was ?? begun[0]);
  const now = $derived(picked.now ?? begun[1]);
  const called = (side: string) => sides.find(([value]) => value === side)?.[1] ?? side;

  let parcels = $state('');
  let sent = $state(false);
  let answer = $state.raw<(ComparedTariffs & { of: [string, string] }) | null>(null);
  let trouble = $state('');

  function side(value: string): { revision: number } | { day: string } {
    const [kind, said = ''] = value.split(' ');
    return kind === 'version' ? { revision: Number(said) } : { day: said };
  }

  async function compare(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const found = await attempt(
      () => calls.compareTariffs(row.carrier, { was: side(was), now: side(now), parcels, sent, from: '' }),
      (said) => (trouble = said),
    );
    if (!found) return;
    trouble = '';
    answer = { ...found, of: [called(was), called(now)] };
  }
</script>

<details class="border-t-hair border-t pt-2">
  <summary class="text-soft text-note cursor-pointer">Compare two versions, or the prices of two days</summary
  >
  <form class="mt-2 grid gap-2.5" aria-label="Compare" onsubmit={(event) => void compare(event)}>
    <div class="max-phone:grid-cols-1 grid grid-cols-2 gap-3">
      <Choose
        id="compare-was"
        label="Compare"
        options={sides}
        bind:value={() => was, (one) => (picked.was = one)}
      />
      <Choose
        id="compare-now"
        label="with"
        options={sides}
        bind:value={() => now, (one) => (picked.now = one)}
      />
    </div>
    <Lines
      id="compare-parcels"
      label="Parcels to price by both, a line each: size, weight, postcode, residential"
      rows={4}
      placeholder={shop.units === 'in'
        ? '24 x 12 x 8, 9 lb, 73120\n30 x 30 x 10, 22 lb, 86410, residential'
        : '60 x 30 x 20, 4 kg, 73120\n75 x 75 x 25, 10 kg, 86410, residential'}
      bind:value={parcels}
      oninput={() => (trouble = '')}
    />
    <Tick id="compare-sent" bind:checked={sent}
      >Parcels of this shop that were weighed and measured closed, as boxes</Tick
    >
    <p class="text-stop text-note min-h-5" role="alert">{trouble}</p>
    <div><button class="btn" type="submit">Compare</button></div>
  </form>
  {#if answer}
    <div class="mt-2.5" role="status">
      <Wide>
        <DifferenceTable
          differs={answer.differences.map((one) => ({ path: one.of, then: one.was, now: one.now }))}
          then={answer.of[0]}
          now={answer.of[1]}
        />
        {#if answer.parcels.length}
          <table
            class="text-note [&_td]:border-t-hair mt-3.5 w-full border-collapse [&_td]:border-t [&_td,&_th]:py-0.75 [&_td,&_th]:pr-3 [&_td,&_th]:text-left [&_td,&_th]:align-top"
          >
            <thead
              ><tr><th>Parcel</th><th>{answer.of[0]}</th><th>{answer.of[1]}</th><th>More or less</th></tr
              ></thead
            >
            <tbody>
              {#each answer.parcels as one, n (n)}
                <tr>
                  <td>{one.called}</td>
                  {#each [0, 1] as const as k (k)}
                    <td
                      >{#if k ? one.now : one.was}<b class="figure">{k ? one.now : one.was}</b>
                        <small class="text-soft block">{one.by[k]}</small>{:else}<span class="text-soft"
                          >{one.why_not[k]}</span
                        >{/if}</td
                    >
                  {/each}
                  <td class="figure">{one.more}</td>
                </tr>
              {/each}
              <tr class="font-strong">
                <td>{answer.counted} priced by both</td>
                <td class="figure">{answer.was}</td>
                <td class="figure">{answer.now}</td>
                <td class="figure">{answer.more} {answer.percent ? `(${answer.percent})` : ''}</td>
              </tr>
            </tbody>
          </table>
        {/if}
      </Wide>
    </div>
  {/if}
</details>
