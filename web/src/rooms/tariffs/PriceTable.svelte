<script lang="ts">
  // A table of prices: a row a weight, a column a zone. What is copied from a spreadsheet may be pasted into any cell and
  // fills from there to the right and down.
  import type { Json, JsonObject } from './schema';
  import Remove from '../../lib/ui/Remove.svelte';

  interface Props {
    /** The charge: its zones, its rows. */
    of: JsonObject;
    path: string;
    label: string;
    wrong: (path: string) => boolean;
    touch: () => void;
  }
  let { of, path, label, wrong, touch }: Props = $props();

  const rows = $derived(of.rows as string[][]);
  const zones = $derived((of.zones ?? []) as string[]);
  const columns = $derived(Math.max(1, zones.length));

  function paste(event: ClipboardEvent, row: number, column: number): void {
    const lines = (event.clipboardData?.getData('text') ?? '').replace(/\r?\n$/, '').split(/\r?\n/);
    const cells = lines.map((line) => line.split('\t'));
    if (cells.length < 2 && (cells[0]?.length ?? 0) < 2) return;
    event.preventDefault();
    cells.forEach((line, down) => {
      const target = (rows[row + down] ??= Array<string>(columns + 1).fill(''));
      line.forEach((cell, right) => {
        if (column + right <= columns) target[column + right] = cell.trim();
      });
    });
    touch();
  }

  /** Up and down go from row to row. */
  function move(event: KeyboardEvent, row: number, column: number): void {
    const step = { ArrowUp: -1, ArrowDown: 1, Enter: 1 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    if (event.key === 'Enter' && row === rows.length - 1) add();
    requestAnimationFrame(() => document.getElementById(`t-${path}.rows[${row + step}][${column}]`)?.focus());
  }

  function add(): void {
    (of.rows as Json[]).push(Array<string>(columns + 1).fill(''));
    touch();
  }
  function drop(row: number): void {
    (of.rows as Json[]).splice(row, 1);
    touch();
  }
  function zone(n: number, name: string): void {
    (of.zones as string[])[n] = name;
    touch();
  }
  function addZone(): void {
    of.zones = [...zones, ''];
    if (zones.length) for (const row of rows) row.push('');
    touch();
  }
  function dropZone(n: number): void {
    of.zones = zones.filter((_, k) => k !== n);
    // The last zone leaves its prices, which are for all from then on.
    if (zones.length) for (const row of rows) row.splice(n + 1, 1);
    touch();
  }
</script>

<div class="border-hair relative max-h-95 overflow-auto border">
  <table class="border-collapse" aria-label={label}>
    <thead>
      <tr>
        <th class="bg-sheet sticky top-0 z-1 px-1 py-0.5 text-left whitespace-nowrap" scope="col">up to</th>
        {#each zones as name, n (n)}
          <th class="bg-sheet sticky top-0 z-1 px-1 py-0.5 text-left whitespace-nowrap" scope="col"
            ><input
              id="t-{path}.zones[{n}]"
              class="field figure text-note h-7.5 w-16 font-semibold"
              aria-label="Name of zone {n + 1}"
              value={name}
              oninput={(event) => zone(n, event.currentTarget.value)}
            /><Remove of="zone {name || n + 1}" go={() => dropZone(n)} /></th
          >
        {:else}<th class="bg-sheet sticky top-0 z-1 px-1 py-0.5 text-left whitespace-nowrap" scope="col"
            >all zones</th
          >{/each}
        <th class="bg-sheet sticky top-0 z-1 px-1 py-0.5 text-left whitespace-nowrap"
          ><button type="button" class="link" onclick={addZone}>Add a zone</button></th
        >
      </tr>
    </thead>
    <tbody>
      {#each rows as row, n (n)}
        <tr>
          {#each row as cell, k (k)}
            <td class="p-px"
              ><input
                id="t-{path}.rows[{n}][{k}]"
                class="field figure text-note h-7.5 w-23"
                aria-label={k === 0
                  ? `Row ${n + 1}, up to`
                  : `Row ${n + 1}, ${zones[k - 1] ? `zone ${zones[k - 1]}` : 'all zones'}`}
                aria-invalid={wrong(`${path}.rows[${n}][${k}]`) || wrong(`${path}.rows[${n}]`)}
                value={cell}
                oninput={(event) => {
                  row[k] = event.currentTarget.value;
                  touch();
                }}
                onkeydown={(event) => move(event, n, k)}
                onpaste={(event) => paste(event, n, k)}
              /></td
            >
          {/each}
          <td class="p-px"><Remove of="row {n + 1}" go={() => drop(n)} /></td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>
<button type="button" class="link" onclick={add}>Add a row</button>
