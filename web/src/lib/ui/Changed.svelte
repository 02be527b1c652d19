<script lang="ts">
  // Marks a figure for a moment when it changes, so that the eye finds what a stroke did.
  import type { Snippet } from 'svelte';

  interface Props {
    text: string;
    children: Snippet;
  }
  let { text, children }: Props = $props();

  let before = '';
  let marked = $state(false);
  $effect(() => {
    const now = text;
    if (before && now !== before) {
      marked = true;
      const timer = setTimeout(() => (marked = false), 1400);
      before = now;
      return () => clearTimeout(timer);
    }
    before = now;
    return undefined;
  });
</script>

<span class="[transition:background_0.5s]" class:marked>{@render children()}</span>

<style>
  .marked {
    background: var(--twine-pale);
    transition: none;
  }
</style>
