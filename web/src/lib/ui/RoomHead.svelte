<script lang="ts">
  // The head of a room: its name, on the page and on the window's tab, and beside it what is done in it.
  import type { Snippet } from 'svelte';

  interface Props {
    title: string;
    /** The window's tab, where it says less. */
    tab?: string;
    children?: Snippet;
  }
  let { title, tab = title, children }: Props = $props();
</script>

<svelte:head><title>{tab} · Fardo</title></svelte:head>

<div class="mb-3.5 flex flex-wrap items-center gap-x-6 gap-y-2">
  <h1>{title}</h1>
  {@render children?.()}
</div>
