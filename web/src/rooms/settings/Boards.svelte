<script lang="ts">
  // Board: its caliper, weight and price, the sheets that are there, and boxes of it that were cut and measured.
  import Choose from '../../lib/ui/Choose.svelte';
  import type { ShopFile } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import Cell from './Cell.svelte';
  import { text, triple, type ListProps } from './words';
  import Remove from '../../lib/ui/Remove.svelte';

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
    <section class="border-t-hair border-t px-0 pt-2 pb-1.5" aria-label="Board {board.code}">
      <h3 class="font-plain mb-1"><b>{board.code}</b> {board.name}</h3>
      <div
        class="row heads text-soft text-small max-phone:hidden mb-1.25 grid grid-cols-[repeat(3,minmax(0,190px))] items-center gap-x-2 gap-y-1"
        aria-hidden="true"
      >
        <span>Caliper</span><span>Weight of a m²</span><span>Price of a m², {d.currency}</span>
      </div>
      <div
        class="row max-phone:grid-cols-2 max-phone:mb-4 mb-1.25 grid grid-cols-[repeat(3,minmax(0,190px))] items-center gap-x-2 gap-y-1"
      >
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
      {#each board.sheets as sheet, k (sheet)}
        {@const of = `sheet ${k + 1} of ${board.code}`}
        <div
          class="row one max-phone:grid-cols-2 max-phone:mb-4 mb-1.25 grid grid-cols-[60px_minmax(0,120px)_minmax(0,120px)_210px_90px_32px] items-center gap-x-2 gap-y-1"
        >
          <span class="text-soft text-small">{sheet.offcut ? 'off-cut' : 'sheet'}</span>
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
          <Choose
            labelled="unseen"
            label="Flutes of {of}"
            bind:value={sheet.flutes}
            change={touched}
            options={[
              ['width', 'flutes along its width'],
              ['length', 'flutes along its length'],
            ]}
          />
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
          <Remove {of} go={() => dropSheet(board, k)} />
        </div>
      {/each}
      {#each board.measured ?? [] as cut, k (cut)}
        {@const of = `measured box ${k + 1} of ${board.code}`}
        <div
          class="row cut max-phone:grid-cols-2 max-phone:mb-4 mb-1.25 grid grid-cols-[180px_64px_minmax(0,190px)_66px_minmax(0,190px)_32px] items-center gap-x-2 gap-y-1"
        >
          <Choose
            labelled="unseen"
            label="Box style of {of}"
            bind:value={cut.way}
            change={touched}
            options={cutWays.map((one) => [one.way, one.title] as const)}
          />
          <span class="text-soft text-small">promised</span>
          <Cell
            id="board-{n}-cut-{k}-promised"
            label="Inside that was promised, {of}"
            bind:value={() => triple(cut.promised), (v) => (cut.promised = v)}
            problem={wrong(`${path}.measured[${k}].promised`)}
            oninput={touched}
          />
          <span class="text-soft text-small">came out</span>
          <Cell
            id="board-{n}-cut-{k}-measured"
            label="Inside that was measured, {of}"
            bind:value={() => triple(cut.measured), (v) => (cut.measured = v)}
            problem={wrong(`${path}.measured[${k}].measured`) || wrong(`${path}.measured[${k}].way`)}
            oninput={touched}
          />
          <Remove {of} go={() => dropCut(board, k)} />
        </div>
      {/each}
      <p class="flex gap-5">
        <button type="button" class="link" onclick={() => addSheet(board)}>Add a sheet of {board.code}</button
        >
        <button type="button" class="link" onclick={() => addCut(board)}
          >I cut a box of {board.code} and measured it</button
        >
      </p>
    </section>
  {/each}
  <p class="note text-soft text-note mt-1.5 max-w-[76ch]">
    Cut a box, measure its inside, and enter both: the next ones of that way and board are cut as much larger
    or smaller. Boxes that are already chosen keep the allowances they were chosen by. Lengths without a unit
    are {shop.units}.
  </p>
</div>
