<script lang="ts">
  // What two versions do not share, a row a field.
  import type { Difference } from '../differences';

  interface Props {
    differs: Difference[];
    /** What the two versions are called. */
    then: string;
    now: string;
  }
  let { differs, then, now }: Props = $props();

  const MOST = 40; // told
</script>

<table
  class="text-note [&_td]:border-t-hair w-full border-collapse [&_td]:border-t [&_td,&_th]:py-0.5 [&_td,&_th]:pr-3 [&_td,&_th]:text-left [&_td,&_th]:align-top [&_td,&_th]:wrap-anywhere"
>
  <thead><tr><th>Field</th><th>{then}</th><th>{now}</th></tr></thead>
  <tbody>
    {#each differs.slice(0, MOST) as one (one.path)}
      <tr><td>{one.path}</td><td>{one.then}</td><td>{one.now}</td></tr>
    {:else}
      <tr><td colspan="3">They are the same.</td></tr>
    {/each}
  </tbody>
</table>
{#if differs.length > MOST}<p class="text-soft">and {differs.length - MOST} more</p>{/if}
