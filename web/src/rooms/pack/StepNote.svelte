<script lang="ts">
  // What is written down and photographed at a packing step; it is kept with the step's ticks.
  import { attempt } from '../../lib/attempt';
  import { calls } from '../../lib/api/client';
  import { toast } from '../../lib/toast.svelte';
  import { notedAt } from './ticked';
  import type { Ticks } from './ticks.svelte';

  interface Props {
    ticks: Ticks;
    step: string;
    done: boolean;
  }
  let { ticks, step, done }: Props = $props();

  const noted = $derived(notedAt(ticks.all, step));
  let open = $state(false);
  let typed = $state('');
  let input = $state<HTMLInputElement>();

  function write(): void {
    if (typed.trim() && typed.trim() !== noted.note) ticks.tick(step, done, typed.trim());
    open = false;
  }

  async function photographed(files: FileList | null): Promise<void> {
    if (!files?.length) return;
    const taken = await attempt(() => calls.sendFiles([...files]));
    for (const one of taken ?? []) {
      if (one.photo) ticks.tick(step, done, '', one.photo);
      else toast.show(one.problem || `${one.called} is no photograph.`);
    }
    if (input) input.value = '';
  }
</script>

<div class="mt-4 flex flex-wrap items-center gap-x-4 gap-y-2">
  {#if open}
    <label class="sr-only" for="step-note">Note at this step</label>
    <textarea
      id="step-note"
      class="field h-auto w-full max-w-160 py-1.5"
      rows="2"
      maxlength="1000"
      bind:value={typed}></textarea>
    <button class="btn" onclick={write}>Keep the note</button>
  {:else}
    {#if noted.note}<p class="text-lead border-l-twine border-l-4 pl-3">{noted.note}</p>{/if}
    <button
      class="link"
      onclick={() => {
        typed = noted.note;
        open = true;
      }}>{noted.note ? 'Change the note' : 'Note'}</button
    >
    <button class="link" onclick={() => input?.click()}>Photograph</button>
    <input
      bind:this={input}
      class="sr-only"
      type="file"
      accept="image/*"
      capture="environment"
      tabindex="-1"
      aria-label="Photograph at this step"
      onchange={(event) => void photographed(event.currentTarget.files)}
    />
    {#each noted.photos as photo, n (photo)}
      <a href="/api/files/{photo}" target="_blank" rel="noopener"
        ><img
          class="border-hair2 h-16 border object-cover"
          src="/api/files/{photo}"
          alt="Photograph {n + 1} at this step"
        /></a
      >
    {/each}
  {/if}
</div>
