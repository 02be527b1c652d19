<script lang="ts">
  // Keeps this job as a kind of goods: its parts, steps and wrap are what the next one is begun with.
  import { Dialog } from 'bits-ui';
  import type { JobDesk } from '../../job/job.svelte';
  import { calls, Refusal, sentence } from '../../lib/api/client';
  import { toast } from '../../lib/toast.svelte';

  interface Props {
    desk: JobDesk;
    open: boolean;
  }
  let { desk, open = $bindable() }: Props = $props();

  let title = $state('');
  let trouble = $state('');
  let taken = $state('');

  /** Args: replaces: code of the kind whose place it takes. */
  async function keep(replaces: string | null = null): Promise<void> {
    if (!title.trim()) return;
    try {
      await desk.saver.settle();
      const view = await calls.keepAsKind(desk.id, { title: title.trim(), replaces });
      open = false;
      trouble = taken = '';
      toast.show(`${view.kind.title} is a kind of goods now; it is on the list when a job is started.`);
    } catch (fault) {
      trouble = sentence(fault);
      taken = fault instanceof Refusal ? fault.taken : '';
    }
  }
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="keys-veil" />
    <Dialog.Content class="keys-slip">
      <Dialog.Title class="keys-title">Save as a kind of goods</Dialog.Title>
      <Dialog.Description class="keys-about"
        >Parts, steps, wrap, questions and extras of this job, to begin the next one with.</Dialog.Description
      >
      <form
        onsubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <label class="text-soft text-small mt-3 block" for="kind-title">What it is called</label>
        <input
          id="kind-title"
          class="field"
          bind:value={title}
          maxlength="80"
          autocomplete="off"
          oninput={() => (trouble = taken = '')}
        />
        <p class="wrong text-stop text-note min-h-6" role="alert">{trouble}</p>
        {#if taken}
          <button type="button" class="btn btn-main" onclick={() => void keep(taken)}>Replace it</button>
        {:else}
          <button class="btn btn-main" disabled={!title.trim()}>Keep it</button>
        {/if}
        <Dialog.Close class="btn" type="button">Close</Dialog.Close>
      </form>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
