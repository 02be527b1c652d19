<script lang="ts">
  // Keeps this job as a kind of goods: its parts, steps and wrap are what the next one is begun with.
  import type { JobDesk } from '../../job/job.svelte';
  import { calls, Refusal, sentence } from '../../lib/api/client';
  import Field from '../../lib/ui/Field.svelte';
  import Slip from '../../lib/ui/Slip.svelte';
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

<Slip
  bind:open
  title="Save as a kind of goods"
  about="Parts, steps, wrap, questions and extras of this job, to begin the next one with."
>
  <form
    id="keep-kind"
    class="mt-3"
    onsubmit={(event) => {
      event.preventDefault();
      void keep();
    }}
  >
    <Field
      id="kind-title"
      label="Name of the kind"
      note={false}
      most={80}
      bind:value={title}
      oninput={() => (trouble = taken = '')}
    />
    <p class="wrong text-stop text-note min-h-6" role="alert">{trouble}</p>
  </form>
  {#snippet deeds()}
    {#if taken}
      <button type="button" class="btn btn-main" onclick={() => void keep(taken)}>Replace it</button>
    {:else}
      <button class="btn btn-main" form="keep-kind" disabled={!title.trim()}>Keep it</button>
    {/if}
  {/snippet}
</Slip>
