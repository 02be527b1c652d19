<script lang="ts">
  // A carrier's own prices in the place of placeholders: a table and a zone chart, pasted from a spreadsheet or from CSV.
  import Lines from '../../lib/ui/Lines.svelte';
  import { attempt } from '../../lib/attempt';
  import { calls, type TariffRow } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import { toast } from '../../lib/toast.svelte';

  interface Props {
    carrier: string;
    /** Which service of the tariff, and what it is called. */
    service: number;
    name: string;
    /** What the first column of its table says. */
    takes: string;
    kept: (row: TariffRow) => void;
  }
  let { carrier, service, name, takes, kept }: Props = $props();

  const SUCH = $derived<Record<string, string>>(
    shop.units === 'in'
      ? {
          weight: 'up to\t2\t3\n1 lb\t7.41\t8.14\n2 lb\t7.72\t8.58',
          volume: 'up to\t2\t3\n0.1\t6.85\t7.60\n0.2\t8.01\t8.89',
          'length + width': 'up to\t2\t3\n21 in\t6.40\t7.10\n27 in\t7.42\t8.24',
          container: 'up to\tall zones\nflat-price box\t14.50',
          class: 'up to\tnear\tfar\n50\t47.00\t68.50\n55\t49.10\t71.55',
        }
      : {
          weight: 'up to\t2\t3\n0.5 kg\t7.41\t8.14\n1 kg\t7.72\t8.58',
          volume: 'up to\t2\t3\n3\t6.85\t7.60\n6\t8.01\t8.89',
          'length + width': 'up to\t2\t3\n53 cm\t6.40\t7.10\n68 cm\t7.42\t8.24',
          container: 'up to\tall zones\nflat-price box\t14.50',
          class: 'up to\tnear\tfar\n50\t47.00\t68.50\n55\t49.10\t71.55',
        },
  );
  const CHART = '100-119, 2, 1-2\n120-299, 3, 2-3';
  let table = $state('');
  let zones = $state('');
  let trouble = $state('');

  async function save(): Promise<void> {
    const row = await attempt(
      () => calls.ownPrices(carrier, service, { table, zones }),
      (said) => (trouble = said),
    );
    if (!row) return;
    trouble = '';
    toast.show(`${name} of ${carrier} has its own prices now.`);
    kept(row);
  }
</script>

<div class="border-l-amber-mark border-l-4 py-1 pl-4">
  <p><b>{name}</b>: placeholder prices. Paste the carrier's own; labels are bought once they are in.</p>
  <div class="max-phone:grid-cols-1 mt-2 grid grid-cols-[minmax(0,1.4fr)_minmax(0,1fr)] items-end gap-3">
    <Lines
      id="own-table-{service}"
      label="Prices: zones on the first line, then a row a {takes}"
      rows={6}
      placeholder={SUCH[takes] ?? SUCH.weight ?? ''}
      bind:value={table}
      oninput={() => (trouble = '')}
    />
    <Lines
      id="own-zones-{service}"
      label="Zone chart, where its zones are others: postcodes, zone, days"
      rows={6}
      placeholder={CHART}
      bind:value={zones}
      oninput={() => (trouble = '')}
    />
  </div>
  <p class="text-stop text-note min-h-5" role="alert">{trouble}</p>
  <button class="btn" disabled={!table.trim()} onclick={() => void save()}>Save its prices</button>
</div>
