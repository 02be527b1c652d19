<script lang="ts">
  // What this room or knot is for, and the keys that work here.
  import { HELP } from '../help';
  import { keys } from '../keys.svelte';
  import { router } from '../router.svelte';
  import Slip from './Slip.svelte';

  const [title, says] = $derived(
    HELP[router.room.name === 'job' ? router.room.station : router.room.name] ?? ['Help', ''],
  );
</script>

<Slip bind:open={keys.shown} {title} about={says}>
  <h3 class="text-note font-title mt-3.5">Keys</h3>
  <p class="text-soft text-note">They work while no field has the focus; Escape leaves a field.</p>
  <dl class="mx-0 mt-2 mb-4.5 grid grid-cols-[56px_1fr] gap-x-3 gap-y-2">
    {#each keys.list as key (key.key)}
      <dt><kbd class="border-edge border px-2.25 py-px font-mono">{key.key}</kbd></dt>
      <dd>{key.does}</dd>
    {/each}
    <dt><kbd class="border-edge border px-2.25 py-px font-mono">?</kbd></dt>
    <dd>this help</dd>
  </dl>
</Slip>
