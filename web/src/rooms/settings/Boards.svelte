<script lang="ts">
  // Board: its caliper, weight and price, the sheets that are there, and boxes of it that were cut and measured.
  import type { ShopFile } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import Cell from './Cell.svelte';
  import { text, triple, type ListProps } from './words';

  let { d = $bindable(), wrong, touched }: ListProps = $props();
  type Board = ShopFile['boards'][number];

  const cutWays = $derived(shop.view?.ways.filter((one) => one.cut) ?? []);

  function addSheet(board: Board): void {
    const size = { length: '96 in', width: '48 in', flutes: 'width' as const };
    board.sheets = [...board.sheets, { ...size, count: null, offcut: false }];
    touched();
  }
  function dropSheet(board: Board, n: number): void {
    board.sheets = board.sheets.filter((_, k) => k !== n);
    touched();
  }
  function addCut(board: Board): void {
    const cut = { way: 'slotted' as const, promised: '12 x 12 x 12 in', measured: '12 x 12 x 12 in' };
    board.measured = [...(board.measured ?? []), cut];
    touched();
  }
  function dropCut(board: Board, n: number): void {
    board.measured = (board.measured ?? []).filter((_, k) => k !== n);
    touched();
  }
</script>

<div class="part">
  <h2>Board: measure your own</h2>
  {#each d.boards as board, n (board.code)}
    {@const path = `boards[${n}]`}
    <section aria-label="Board {board.code}">
      <h3><b>{board.code}</b> {board.name}</h3>
      <div class="row heads" aria-hidden="true">
        <span>Caliper</span><span>Weight of a m²</span><span>Price of a m², {d.currency}</span>
      </div>
      <div class="row">
        <Cell
          id="board-{n}-caliper"
          label="Caliper of {board.code}"
          bind:value={() => text(board.caliper), (v) => (board.caliper = v)}
          problem={wrong(`${path}.caliper`)}
          oninput={touched}
        />
        <Cell
          id="board-{n}-weight"
          label="Weight of {board.code}"
          bind:value={() => text(board.weight_per_m2), (v) => (board.weight_per_m2 = v)}
          problem={wrong(`${path}.weight_per_m2`)}
          oninput={touched}
        />
        <Cell
          id="board-{n}-price"
          label="Price of {board.code}"
          bind:value={board.price_per_m2}
          problem={wrong(`${path}.price_per_m2`)}
          oninput={touched}
        />
      </div>
      {#each board.sheets as sheet, k (k)}
        {@const of = `sheet ${k + 1} of ${board.code}`}
        <div class="row one">
          <span class="what">{sheet.offcut ? 'off-cut' : 'sheet'}</span>
          <Cell
            id="board-{n}-sheet-{k}-length"
            label="Length of {of}"
            bind:value={() => text(sheet.length), (v) => (sheet.length = v)}
            problem={wrong(`${path}.sheets[${k}].length`)}
            oninput={touched}
          />
          <Cell
            id="board-{n}-sheet-{k}-width"
            label="Width of {of}"
            bind:value={() => text(sheet.width), (v) => (sheet.width = v)}
            problem={wrong(`${path}.sheets[${k}].width`)}
            oninput={touched}
          />
          <select class="field" aria-label="Flutes of {of}" bind:value={sheet.flutes} onchange={touched}>
            <option value="width">flutes along its width</option>
            <option value="length">flutes along its length</option>
          </select>
          <label class="count"
            ><span class="sr-only">In stock of {of}</span>
            <input
              id="board-{n}-sheet-{k}-count"
              class="field figure"
              placeholder="enough"
              inputmode="numeric"
              maxlength="6"
              bind:value={
                () => String(sheet.count ?? ''),
                (v) => (sheet.count = v.trim() === '' ? null : (v as unknown as number))
              }
              oninput={touched}
            /></label
          >
          <button type="button" class="off" onclick={() => dropSheet(board, k)} aria-label="Remove {of}"
            >×</button
          >
        </div>
      {/each}
      {#each board.measured ?? [] as cut, k (k)}
        {@const of = `measured box ${k + 1} of ${board.code}`}
        <div class="row cut">
          <select class="field" aria-label="Way of {of}" bind:value={cut.way} onchange={touched}>
            {#each cutWays as one (one.way)}<option value={one.way}>{one.title}</option>{/each}
          </select>
          <span class="what">promised</span>
          <Cell
            id="board-{n}-cut-{k}-promised"
            label="Inside that was promised, {of}"
            bind:value={() => triple(cut.promised), (v) => (cut.promised = v)}
            problem={wrong(`${path}.measured[${k}].promised`)}
            oninput={touched}
          />
          <span class="what">came out</span>
          <Cell
            id="board-{n}-cut-{k}-measured"
            label="Inside that was measured, {of}"
            bind:value={() => triple(cut.measured), (v) => (cut.measured = v)}
            problem={wrong(`${path}.measured[${k}].measured`) || wrong(`${path}.measured[${k}].way`)}
            oninput={touched}
          />
          <button type="button" class="off" onclick={() => dropCut(board, k)} aria-label="Remove {of}"
            >×</button
          >
        </div>
      {/each}
      <p class="adds">
        <button type="button" class="link" onclick={() => addSheet(board)}>Add a sheet of {board.code}</button
        >
        <button type="button" class="link" onclick={() => addCut(board)}
          >I cut a box of {board.code} and measured it</button
        >
      </p>
    </section>
  {/each}
  <p class="note">
    Cut a box, measure its inside, and enter both: the next ones of that way and board are cut as much larger
    or smaller. Boxes that are already chosen keep the allowances they were chosen by. Lengths without a unit
    are {shop.units}.
  </p>
</div>

<style>
  section {
    border-top: 1px solid var(--hair);
    padding: 8px 0 6px;
  }
  h3 {
    font-weight: 450;
    margin-bottom: 4px;
  }
  .heads,
  .what {
    font-size: 13.5px;
    color: var(--soft);
  }
  .row {
    display: grid;
    grid-template-columns: repeat(3, minmax(0, 190px));
    gap: 4px 8px;
    align-items: center;
    margin-bottom: 5px;
  }
  .one {
    grid-template-columns: 60px minmax(0, 120px) minmax(0, 120px) 210px 90px 32px;
  }
  .cut {
    grid-template-columns: 180px 64px minmax(0, 190px) 66px minmax(0, 190px) 32px;
  }
  .adds {
    display: flex;
    gap: 20px;
  }
  .note {
    font-size: 14px;
    color: var(--soft);
    margin-top: 6px;
    max-width: 76ch;
  }
</style>
