<script lang="ts">
  // Blanks of the shop's own, read in from a drawing; each a way to get a box from then on.
  import { calls, sentence } from '../../lib/api/client';
  import Cell from './Cell.svelte';
  import { triple, type ListProps } from './words';

  let { d = $bindable(), wrong, touched }: ListProps = $props();

  let file: HTMLInputElement;
  let says = $state('');
  let trouble = $state(false);
  let shown = $state('');

  async function read(): Promise<void> {
    const chosen = file.files?.[0];
    if (!chosen) return;
    try {
      const found = await calls.readDesign({ name: chosen.name, content: await chosen.text() });
      d.designs = [...(d.designs ?? []), found.design];
      shown = found.svg;
      says = `${found.panels} panels. Look its sizes over: they are what it folds to with two boards at every wall.`;
      trouble = false;
      touched();
    } catch (fault) {
      says = `${chosen.name}: ${sentence(fault)}`;
      trouble = true;
    }
    file.value = '';
  }
  function drop(n: number): void {
    d.designs = (d.designs ?? []).filter((_, k) => k !== n);
    shown = '';
    touched();
  }
</script>

<div class="part">
  <h2>Designs of your own</h2>
  {#if d.designs?.length}
    <div class="row heads" aria-hidden="true">
      <span>Name</span><span>Board</span><span>Inside, folded</span><span>Outside, closed</span>
    </div>
  {/if}
  {#each d.designs ?? [] as one, n (n)}
    {@const path = `designs[${n}]`}
    <div class="row">
      <Cell
        id="design-{n}-name"
        label="Name of design {n + 1}"
        measure={false}
        bind:value={one.name}
        problem={wrong(`${path}.name`)}
        oninput={touched}
      />
      <select class="field" aria-label="Board of design {n + 1}" bind:value={one.board} onchange={touched}>
        {#each d.boards as board (board.code)}<option value={board.code}>{board.code}</option>{/each}
      </select>
      <Cell
        id="design-{n}-inside"
        label="Inside of design {n + 1}"
        bind:value={() => triple(one.inside), (v) => (one.inside = v)}
        problem={wrong(`${path}.inside`)}
        oninput={touched}
      />
      <Cell
        id="design-{n}-outside"
        label="Outside of design {n + 1}"
        bind:value={() => triple(one.outside), (v) => (one.outside = v)}
        problem={wrong(`${path}.outside`)}
        oninput={touched}
      />
      <button
        type="button"
        class="off"
        onclick={() => drop(n)}
        aria-label="Remove {one.name || 'this design'}">×</button
      >
    </div>
  {/each}
  <button type="button" class="btn" onclick={() => file.click()}>Read in an SVG or DXF</button>
  <input
    bind:this={file}
    id="design-file"
    type="file"
    accept=".svg,.dxf"
    hidden
    onchange={() => void read()}
  />
  <p class="says" class:trouble role="status">
    {says || 'One blank a file, straight lines; folds on a layer or in a class named score, or dashed.'}
  </p>
  {#if shown}
    <div class="drawing">
      <!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn by our own server, its words escaped there -->
      {@html shown}
    </div>
  {/if}
</div>

<style>
  .heads,
  .says {
    font-size: 13.5px;
    color: var(--soft);
  }
  .says {
    margin-top: 6px;
  }
  .trouble {
    color: var(--stop);
  }
  .row {
    display: grid;
    grid-template-columns: minmax(120px, 1fr) 76px minmax(0, 250px) minmax(0, 250px) 32px;
    gap: 8px;
    align-items: center;
    margin-bottom: 6px;
  }
  .drawing :global(svg) {
    max-width: 560px;
    width: 100%;
    height: auto;
    max-height: 320px;
  }
  .drawing :global(.board) {
    fill: var(--board-pale);
  }
</style>
