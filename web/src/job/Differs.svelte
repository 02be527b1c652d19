<script lang="ts">
  // What differs between this window's job and the one another window saved.
  import { Dialog } from 'bits-ui';
  import { attempt } from '../lib/attempt';
  import { calls } from '../lib/api/client';
  import { differences, type Difference } from '../lib/differences';
  import type { JobDesk } from './job.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const MOST = 40; // differences told
  let open = $state(false);
  let found = $state.raw<Difference[]>([]);
  let trouble = $state('');

  async function look(): Promise<void> {
    trouble = '';
    await attempt(
      async () => {
        found = differences((await calls.job(desk.id)).job, desk.job);
      },
      (said) => (trouble = said),
    );
  }
</script>

<Dialog.Root bind:open onOpenChange={(shown) => void (shown && look())}>
  <Dialog.Trigger class="btn">What differs</Dialog.Trigger>
  <Dialog.Portal>
    <Dialog.Overlay class="keys-veil" />
    <Dialog.Content class="keys-slip">
      <Dialog.Title class="keys-title">This window and the other</Dialog.Title>
      <Dialog.Description class="keys-about"
        >What the two versions of this job do not share.</Dialog.Description
      >
      {#if trouble}<p class="text-stop" role="alert">{trouble}</p>{/if}
      <div class="my-3.5 max-h-[52vh] overflow-auto">
        <table class="text-note w-full border-collapse">
          <thead><tr><th>Field</th><th>The other</th><th>This window</th></tr></thead>
          <tbody>
            {#each found.slice(0, MOST) as one (one.path)}
              <tr class="border-t-hair border-t align-top wrap-anywhere"
                ><td class="pr-3">{one.path}</td><td class="pr-3">{one.then}</td><td>{one.now}</td></tr
              >
            {:else}
              <tr><td colspan="3">They are the same.</td></tr>
            {/each}
          </tbody>
        </table>
        {#if found.length > MOST}<p class="text-soft">and {found.length - MOST} more</p>{/if}
      </div>
      <Dialog.Close class="btn" type="button">Close</Dialog.Close>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
