<script lang="ts">
  // Blanks of the shop's own, read in from a drawing; each a way to get a box from then on.
  import Choose from '../../lib/ui/Choose.svelte';
  import { calls, sentence } from '../../lib/api/client';
  import Cell from './Cell.svelte';
  import { triple, type ListProps } from './words';
  import Remove from '../../lib/ui/Remove.svelte';

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
    <div
      class="row heads text-soft text-small max-phone:hidden mb-1.5 grid grid-cols-[minmax(120px,1fr)_76px_minmax(0,250px)_minmax(0,250px)_32px] items-center gap-2"
      aria-hidden="true"
    >
      <span>Name</span><span>Board</span><span>Inside, folded</span><span>Outside, closed</span>
    </div>
  {/if}
  {#each d.designs ?? [] as one, n (one)}
    {@const path = `designs[${n}]`}
    <div
      class="row max-phone:grid-cols-2 max-phone:mb-4 mb-1.5 grid grid-cols-[minmax(120px,1fr)_76px_minmax(0,250px)_minmax(0,250px)_32px] items-center gap-2"
    >
      <Cell
        id="design-{n}-name"
        label="Name of design {n + 1}"
        measure={false}
        bind:value={one.name}
        problem={wrong(`${path}.name`)}
        oninput={touched}
      />
      <Choose
        labelled="unseen"
        label="Board of design {n + 1}"
        bind:value={one.board}
        change={touched}
        options={d.boards.map((board) => board.code)}
      />
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
      <Remove of={one.name || 'this design'} go={() => drop(n)} />
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
  <p class="says text-soft text-small mt-1.5" class:trouble role="status">
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
  .trouble {
    color: var(--stop);
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
