<script lang="ts">
  // How a part may lie in the box: which way up, what may lie over it, beside what, and with what.
  import type { JobDesk } from '../../job/job.svelte';
  import type { TypedPart } from '../../job/typed';

  interface Props {
    desk: JobDesk;
    part: TypedPart;
  }
  let { desk, part }: Props = $props();

  const touch = () => desk.touch();
  const wrong = $derived(desk.problem(`parts[${desk.chosen}].rules.bears`));
</script>

<div class="rules">
  <label><input type="checkbox" bind:checked={part.thisSideUp} onchange={touch} />this side up</label>
  <label><input type="checkbox" bind:checked={part.keepFlat} onchange={touch} />keep flat</label>
  <label><input type="checkbox" bind:checked={part.noLoadOnTop} onchange={touch} />nothing on top</label>
  <label><input type="checkbox" bind:checked={part.hardEdges} onchange={touch} />hard edges</label>
</div>
<div class="rules said">
  <label for="bears"
    >bears at most
    <input
      id="bears"
      class="field"
      data-measure="mass"
      bind:value={part.bears}
      oninput={touch}
      placeholder="any"
      disabled={part.noLoadOnTop}
      aria-invalid={wrong ? 'true' : undefined}
    /></label
  >
  <label for="bundle"
    >held together as
    <input
      id="bundle"
      class="field"
      bind:value={part.bundle}
      oninput={touch}
      maxlength="60"
      placeholder="none"
    /></label
  >
  <label for="apart"
    >not beside
    <input
      id="apart"
      class="field"
      bind:value={part.apartFrom}
      oninput={touch}
      placeholder="names, with commas"
    /></label
  >
</div>
{#if wrong}<p class="no">
    {wrong}
  </p>{/if}

<style>
  .rules {
    display: flex;
    gap: 18px;
    margin: 6px 0;
    font-size: 14.5px;
  }
  .rules label {
    display: flex;
    gap: 7px;
    align-items: center;
  }
  .rules input {
    width: 17px;
    height: 17px;
    accent-color: var(--twine);
  }
  .rules.said {
    display: grid;
    grid-template-columns: 120px 1fr 1.4fr;
    gap: 8px 12px;
    color: var(--soft);
  }
  .rules.said label {
    display: block;
    font-size: 13.5px;
  }
  .rules .field {
    width: 100%;
    height: 34px;
    color: var(--ink);
  }
  .no {
    color: var(--stop);
  }
</style>
