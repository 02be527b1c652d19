<script lang="ts">
  // The boxes there are to arrange into: those that hold the goods as they lie, then those that lack least.
  import type { Arranging } from './arranging.svelte';

  interface Props {
    arranging: Arranging;
  }
  let { arranging }: Props = $props();

  const FIRST = 5;
  let all = $state(false);
</script>

{#if arranging.boxes.length}
  <h2>Fit into a box in stock</h2>
  <ul class="boxes">
    {#each arranging.boxes.slice(0, all ? undefined : FIRST) as box (box.name)}
      <li>
        <button
          class="aria-pressed:bg-twine-pale"
          aria-pressed={arranging.search.into === box.inside}
          disabled={arranging.search.searching}
          onclick={() => (arranging.search.into = arranging.search.into === box.inside ? '' : box.inside)}
        >
          <span>{box.name}</span>
          <span class:holds={!box.short} class="short text-soft text-small block"
            >{box.short || 'holds the goods as they lie'}</span
          >
        </button>
      </li>
    {/each}
  </ul>
  {#if !all && arranging.boxes.length > FIRST}
    <button class="link" onclick={() => (all = true)}>All {arranging.boxes.length}</button>
  {/if}
{/if}

<style>
  button:not(.link) {
    display: block;
    width: 100%;
    padding: 4px 6px;
    text-align: left;
    font-size: var(--text-note);
    border-bottom: 1px solid var(--hair);
  }

  .holds {
    color: var(--twine);
    font-weight: 600;
  }
</style>
