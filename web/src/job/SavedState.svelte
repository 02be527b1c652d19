<script lang="ts">
  // Whether what is typed is kept, in a few words; and the choice after a change in another window.
  import { attempt, start } from '../lib/attempt';
  import { calls } from '../lib/api/client';
  import { router } from '../lib/router.svelte';
  import { toast } from '../lib/toast.svelte';
  import Earlier from '../lib/ui/Earlier.svelte';
  import Differs from './Differs.svelte';
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
      conflict: `Changed in another window${desk.saver.clashes.length ? `: ${desk.saver.clashes[0]}` : ''}`,
    }[desk.saver.state],
  );

  async function both(): Promise<void> {
    await attempt(async () => {
      const view = await desk.saver.keepBoth();
      toast.show('Both are kept: this is yours, the other is on the bench too.');
      router.go(`/jobs/${view.id}/measure`);
    });
  }

  async function archive(): Promise<void> {
    await desk.saver.settle();
    await calls.archive(desk.id);
    router.go('/');
    toast.show(`${desk.typed.title || 'Untitled job'} is archived.`, async () => {
      await calls.restore(desk.id);
      router.go(`/jobs/${desk.id}/measure`);
    });
  }
</script>

<div
  class="state text-note max-phone:flex-wrap max-phone:gap-y-0 flex items-center gap-x-3 whitespace-nowrap"
>
  {#if desk.saver.restored && desk.saver.state !== 'saved'}<span class="restored text-twine"
      >What you typed before is back.</span
    >{/if}
  <span
    class="words text-soft min-w-13 text-right"
    class:warn={['refused', 'away', 'conflict'].includes(desk.saver.state)}
    role="status"
    title={desk.saver.clashes.join(', ') || desk.saver.trouble || undefined}
  >
    {words}
  </span>
  {#if desk.saver.state === 'conflict'}
    <button class="btn" onclick={() => desk.saver.keepMine()}>Save my version</button>
    <button class="btn" onclick={() => start(() => desk.saver.takeTheirs())}>Load the other</button>
    <button class="btn" onclick={both}>Save mine as a copy</button>
    <Differs {desk} />
  {/if}
  <Earlier
    of="this job"
    list={() => desk.saver.settle().then(() => calls.jobRevisions(desk.id))}
    then={(revision) => calls.jobThen(desk.id, revision)}
    back={async (revision) => {
      const undo = await desk.saver.restore(revision);
      toast.show(`Version ${revision} is back.`, undo);
    }}
  />
  <a class="link" href="/api/jobs/{desk.id}/file" download>Export job</a>
  <button class="link" onclick={() => start(archive)}>Archive</button>
</div>

<style>
  .warn {
    color: var(--stop);
    font-weight: 600;
  }
</style>
