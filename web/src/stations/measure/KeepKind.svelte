<script lang="ts">
  // Keeps this job as a kind of goods: its parts, steps and wrap are what the next one is begun with.
  import { Dialog } from 'bits-ui';
  import type { JobDesk } from '../../job/job.svelte';
  import { calls, sentence } from '../../lib/api/client';
  import { toast } from '../../lib/toast.svelte';

  interface Props {
    desk: JobDesk;
    open: boolean;
  }
  let { desk, open = $bindable() }: Props = $props();

  let title = $state('');
  let trouble = $state('');
  const code = $derived(
    title
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 38),
  );

  async function keep(): Promise<void> {
    if (!code) return;
    try {
      await desk.settle();
      const view = await calls.keepAsKind(desk.id, { code, title: title.trim() });
      open = false;
      trouble = '';
      toast.show(`${view.kind.title} is a kind of goods now; it is on the list when a job is started.`);
    } catch (fault) {
      trouble = sentence(fault);
    }
  }
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="keys-veil" />
    <Dialog.Content class="keys-slip">
      <Dialog.Title class="keys-title">Keep as a kind of goods</Dialog.Title>
      <Dialog.Description class="keys-about"
        >Parts, steps, wrap, questions and extras of this job, to begin the next one with.</Dialog.Description
      >
      <form
        onsubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <label for="kind-title">What it is called</label>
        <input id="kind-title" class="field" bind:value={title} maxlength="80" autocomplete="off" />
        <p class="wrong" role="alert">{trouble}</p>
        <button class="btn btn-main" disabled={!code}>Keep it</button>
        <Dialog.Close class="btn" type="button">Close</Dialog.Close>
      </form>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>

<style>
  label {
    display: block;
    margin-top: 12px;
    font-size: 13.5px;
    color: var(--soft);
  }
  .wrong {
    min-height: 24px;
    color: var(--stop);
    font-size: 14px;
  }
</style>
