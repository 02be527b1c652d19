<script lang="ts">
  // Whether what is typed is kept, in a few words; and the choice after a change in another window.
  import { calls, sentence } from '../lib/api/client';
  import { router } from '../lib/router.svelte';
  import { toast } from '../lib/toast.svelte';
  import Earlier from '../lib/ui/Earlier.svelte';
  import type { JobDesk } from './job.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const words = $derived(
    {
      saved: 'Saved',
      saving: 'Saving',
      typing: 'Saving',
      refused: 'Not saved: correct the marked fields',
      away: "The shop's server is not responding. Your changes are kept in this browser",
      conflict: 'Changed in another window',
    }[desk.saved],
  );

  async function both(): Promise<void> {
    try {
      const view = await desk.keepBoth();
      toast.show('Both are kept: this is yours, the other is on the bench too.');
      router.go(`/jobs/${view.id}/measure`);
    } catch (fault) {
      toast.show(sentence(fault));
    }
  }

  async function putAway(): Promise<void> {
    await desk.settle();
    await calls.putAway(desk.id);
    router.go('/');
    toast.show(`${desk.typed.title || 'Untitled job'} is archived.`, () => {
      void calls.bringBack(desk.id).then(() => router.go(`/jobs/${desk.id}/measure`));
    });
  }
</script>

<div class="state">
  {#if desk.restored && desk.saved !== 'saved'}<span class="restored">What you typed before is back.</span
    >{/if}
  <span
    class="words"
    class:warn={['refused', 'away', 'conflict'].includes(desk.saved)}
    role="status"
    title={desk.trouble || undefined}
  >
    {words}
  </span>
  {#if desk.saved === 'conflict'}
    <button class="btn" onclick={() => desk.keepMine()}>Save my version</button>
    <button class="btn" onclick={() => desk.takeTheirs()}>Load the other</button>
    <button class="btn" onclick={both}>Save mine as a copy</button>
  {/if}
  <Earlier
    of="this job"
    list={() => desk.settle().then(() => calls.jobRevisions(desk.id))}
    then={(revision) => calls.jobThen(desk.id, revision)}
    back={async (revision) => {
      const undo = await desk.bringBack(revision);
      toast.show(`Version ${revision} is back.`, undo);
    }}
  />
  <a class="link" href="/api/jobs/{desk.id}/file" download>Export job</a>
  <button class="link" onclick={putAway}>Archive</button>
</div>

<style>
  .state {
    display: flex;
    align-items: center;
    gap: 12px;
    font-size: 14px;
    white-space: nowrap;
  }
  .words {
    color: var(--soft);
    min-width: 52px;
    text-align: right;
  }
  .warn {
    color: var(--stop);
    font-weight: 600;
  }
  .restored {
    color: var(--twine);
  }
</style>
