<script lang="ts">
  // A station that has nothing to show yet: what is still wanted, and the way there.
  import { follow } from '../lib/router.svelte';
  import Missing from './Missing.svelte';
  import type { JobDesk } from './job.svelte';

  interface Props {
    desk: JobDesk;
    what: string;
  }
  let { desk, what }: Props = $props();

  const wanted = $derived(
    desk.work.view?.problems.length ? 'A measure cannot be read; it is marked there.' : 'Still missing:',
  );
</script>

<div class="sheet p-5">
  {#if desk.work.view?.several}
    <p>
      <b>No {what} for all of it.</b>
      {desk.work.view.several}. Divide it; each parcel then has its own box.
    </p>
    <p class="mt-2"><a class="btn" href="/jobs/{desk.id}/price" onclick={follow}>In several parcels</a></p>
  {:else}
    <p><b>No {what} yet.</b> {wanted}</p>
    {#if !desk.work.view?.problems.length}<ul class="mt-1"><Missing {desk} /></ul>{/if}
    <p class="mt-2"><a class="btn" href="/jobs/{desk.id}/measure" onclick={follow}>Measure</a></p>
  {/if}
</div>
