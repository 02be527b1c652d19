<script lang="ts">
  // What is wider than its place scrolls by itself. Labels for a screen reader alone are laid out from it, and not from
  // the page, which they would widen.
  import type { Snippet } from 'svelte';

  interface Props {
    /** How wide its content is at least, but on a phone, where rows wrap: a class. */
    least?: string;
    children: Snippet;
  }
  let { least = '', children }: Props = $props();
</script>

<div class="relative max-w-full overflow-x-auto {least ? 'max-phone:overflow-visible' : ''}">
  <div class="{least} {least ? 'max-phone:min-w-0' : ''}">{@render children()}</div>
</div>
