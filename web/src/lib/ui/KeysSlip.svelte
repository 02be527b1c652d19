<script lang="ts">
  // The keys that work here.
  import { keys } from '../keys.svelte';
  import Slip from './Slip.svelte';
</script>

<Slip
  bind:open={keys.shown}
  title="Keys"
  about="They work while no field has the focus; Escape leaves a field."
>
  <dl class="mx-0 mt-3.5 mb-4.5 grid grid-cols-[56px_1fr] gap-x-3 gap-y-2">
    {#each keys.list as key (key.key)}
      <dt><kbd class="border-edge border px-2.25 py-px font-mono">{key.key}</kbd></dt>
      <dd>{key.does}</dd>
    {/each}
    <dt><kbd class="border-edge border px-2.25 py-px font-mono">?</kbd></dt>
    <dd>this list</dd>
  </dl>
</Slip>
