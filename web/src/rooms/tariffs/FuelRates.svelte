<script lang="ts">
  // The fuel surcharges of all carriers in one place, as they change from week to week.
  import { attempt } from '../../lib/attempt';
  import { calls, type FuelRow } from '../../lib/api/client';
  import { toast } from '../../lib/toast.svelte';

  interface Props {
    rows: FuelRow[];
    changed: (carrier: string) => void;
  }
  let { rows, changed }: Props = $props();

  let typed = $state<Record<string, string>>({});
  let trouble = $state('');

  const named = (row: FuelRow) => `${row.carrier} ${row.percent}`;
  /** Each by name where they are few, else the range. */
  const inAll = $derived.by(() => {
    if (rows.length <= 6) return rows.map((row) => `${row.carrier} ${row.percent} %`).join(', ');
    const [least, most] = [Math.min, Math.max].map((of) => of(...rows.map((row) => Number(row.percent))));
    return `${rows.length} of them, ${least === most ? `all ${least} %` : `${least} to ${most} %`}`;
  });
  const value = (row: FuelRow) => typed[named(row)] ?? row.percent;

  async function save(event: SubmitEvent, row: FuelRow): Promise<void> {
    event.preventDefault();
    const percent = value(row);
    if (percent.trim() === row.percent) return;
    const kept = await attempt(
      () => calls.changeFuel(row.carrier, { revision: row.revision, was: row.percent, percent }),
      (said) => (trouble = `${row.carrier}, ${said}`),
    );
    if (!kept) return;
    trouble = '';
    typed = {};
    toast.show(`Fuel of ${row.carrier} is ${percent} % now.`, async () => {
      await calls.tariffVersion(row.carrier, row.revision);
      changed(row.carrier);
    });
    changed(row.carrier);
  }
</script>

{#if rows.length}
  <details class="mb-4">
    <summary class="text-soft text-note mb-2 cursor-pointer">Fuel surcharges: {inAll}</summary>
    <p class="text-soft text-small mb-1">
      A new per cent goes into every service named beside it, as a new version of the carrier's tariff.
    </p>
    {#each rows as row, n (named(row))}
      <form
        class="border-t-hair max-phone:grid-cols-1 grid grid-cols-[minmax(0,200px)_minmax(0,1fr)_130px_auto] items-center gap-x-3 gap-y-1 border-t py-1.5"
        aria-label="Fuel surcharge of {row.carrier}"
        onsubmit={(event) => void save(event, row)}
      >
        <b>{row.carrier}</b>
        <span class="text-soft text-small">{row.services.join('; ')}</span>
        <label class="flex items-center gap-1.5" for="fuel-{n}"
          ><span class="sr-only">Fuel surcharge of {row.carrier}, {row.services.join('; ')}</span>
          <input
            id="fuel-{n}"
            class="field figure"
            inputmode="decimal"
            maxlength="20"
            autocomplete="off"
            value={value(row)}
            oninput={(event) => {
              typed[named(row)] = event.currentTarget.value;
              trouble = '';
            }}
          /><span aria-hidden="true">%</span></label
        >
        <button class="btn" type="submit" disabled={value(row).trim() === row.percent}
          >Save<span class="sr-only"> fuel of {row.carrier}</span></button
        >
      </form>
    {/each}
    <p class="text-stop text-note min-h-5" role="alert">{trouble}</p>
  </details>
{/if}
