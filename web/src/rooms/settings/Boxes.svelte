<script lang="ts">
  // The boxes that are there: new ones on the shelf, used ones in the stash; and what re-cutting and telescoping take.
  import type { ShopFile } from '../../lib/api/client';
  import Field from '../../lib/ui/Field.svelte';
  import { text } from './words';

  interface Props {
    d: ShopFile;
    wrong: (name: string) => string;
    touched: () => void;
  }
  let { d = $bindable(), wrong, touched }: Props = $props();

  const size = (value: unknown) =>
    Array.isArray(value) ? value.map((side) => text(side)).join(' x ') : text(value);

  function add(): void {
    const box = { name: '', inside: '12 x 12 x 12 in', board: d.default_board, price: '0.00', count: 1, carrier: '' };
    d.boxes = [...(d.boxes ?? []), { ...box, used: true }];
    touched();
  }
  function drop(n: number): void {
    d.boxes = (d.boxes ?? []).filter((_, k) => k !== n);
    touched();
  }
</script>

<div class="part">
  <h2>Boxes on the shelf and in the stash</h2>
  <div class="row heads" aria-hidden="true">
    <span>Name</span><span>Inside</span><span>Board</span><span>Price, {d.currency}</span><span>How many</span
    >
  </div>
  {#each d.boxes ?? [] as box, n (n)}
    <div class="row box">
      <Field
        id="box-{n}-name"
        label="Name of box {n + 1}"
        hideLabel
        note={false}
        bind:value={() => box.name, (v) => (box.name = v)}
        oninput={touched}
        problem={wrong(`boxes[${n}].name`)}
        faults="shop-faults"
      />
      <Field
        id="box-{n}-inside"
        label="Inside of box {n + 1}"
        hideLabel
        measure
        note={false}
        bind:value={() => size(box.inside), (v) => (box.inside = v)}
        oninput={touched}
        problem={wrong(`boxes[${n}].inside`)}
        faults="shop-faults"
      />
      <select class="field" aria-label="Board of box {n + 1}" bind:value={box.board} onchange={touched}>
        {#each d.boards as board (board.code)}<option value={board.code}>{board.code}</option>{/each}
      </select>
      <Field
        id="box-{n}-price"
        label="Price of box {n + 1}"
        hideLabel
        measure
        note={false}
        bind:value={() => box.price ?? '', (v) => (box.price = v)}
        oninput={touched}
        problem={wrong(`boxes[${n}].price`)}
        faults="shop-faults"
      />
      <Field
        id="box-{n}-count"
        label="How many of box {n + 1}"
        hideLabel
        measure
        note={false}
        bind:value={() => String(box.count ?? ''), (v) => (box.count = v as unknown as number)}
        oninput={touched}
        problem={wrong(`boxes[${n}].count`)}
        faults="shop-faults"
      />
      <label class="used"><input type="checkbox" bind:checked={box.used} onchange={touched} /> used</label>
      <button type="button" class="off" onclick={() => drop(n)} aria-label="Drop {box.name || 'this box'}"
        >×</button
      >
    </div>
  {/each}
  <button type="button" class="btn" onclick={add}>Add a box</button>
  <div class="grid">
    <Field
      id="shop-refold"
      label="Moved corners of a re-cut box take"
      measure
      note={false}
      bind:value={() => text(d.refold), (v) => (d.refold = v)}
      oninput={touched}
      problem={wrong('refold')}
      faults="shop-faults"
    />
    <Field
      id="shop-overlap"
      label="Least overlap at the joint of a stack"
      measure
      note={false}
      bind:value={() => text(d.overlap), (v) => (d.overlap = v)}
      oninput={touched}
      problem={wrong('overlap')}
      faults="shop-faults"
    />
  </div>
</div>

<style>
  .part {
    margin-top: 26px;
  }
  .heads {
    font-size: 13.5px;
    color: var(--soft);
  }
  .row {
    display: grid;
    grid-template-columns: minmax(120px, 2fr) minmax(130px, 2fr) 76px 84px 70px 76px 32px;
    gap: 8px;
    align-items: center;
    margin-bottom: 6px;
  }
  select {
    height: 38px;
  }
  .used {
    display: flex;
    gap: 6px;
    align-items: center;
    min-height: 32px;
    font-size: 14px;
  }
  .used input {
    accent-color: var(--twine);
  }
  .off {
    min-height: 32px;
    color: var(--soft);
  }
  .grid {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 8px 16px;
    margin-top: 12px;
  }
</style>
