<script lang="ts">
  // A knot: tied, an open loop, or loose again: untied with its ends apart. Told apart by shape.
  interface Props {
    x: number;
    y: number;
    state: 'open' | 'tied' | 'loose';
    size?: number;
  }
  let { x, y, state, size = 1 }: Props = $props();
</script>

<g transform="translate({x} {y}) scale({size})">
  {#if state === 'tied'}
    <path d="M-11 0C-8-7-3-8.5 0-8.5S8-7 11 0C8 7 3 8.5 0 8.5S-8 7-11 0Z" fill="var(--twine)" />
    <path d="M-5-6 6 5M0-8 9 1M-9-1 1 8" stroke="var(--twine-light)" stroke-width="1.5" fill="none" />
    <path d="M2 8 8 16M-2 8-4 15" stroke="var(--twine)" stroke-width="2.4" fill="none" />
  {:else if state === 'open'}
    <path
      d="M-7 0C-9-9-5-15 0-15S9-9 7 0"
      fill="var(--paper)"
      stroke="var(--twine)"
      stroke-width="2.6"
      stroke-linecap="round"
    />
  {:else}
    <path
      d="M-9 0C-12-10-2-16 3-11M9 0C12-8 8-12 5-9"
      fill="none"
      stroke="var(--amber-mark)"
      stroke-width="2.6"
      stroke-linecap="round"
    />
    <path d="M-6 3-9 12M6 3 10 11" stroke="var(--amber-mark)" stroke-width="2.2" stroke-linecap="round" />
  {/if}
</g>
