<script lang="ts">
  // What is written down and photographed at a packing step; it is kept with the step's ticks.
  import Photo from '../../lib/ui/Photo.svelte';
  import TakePhoto from '../../lib/ui/TakePhoto.svelte';
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

  function write(): void {
    if (typed.trim() && typed.trim() !== noted.note) ticks.tick(step, done, typed.trim());
    open = false;
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
    <TakePhoto
      words="Photograph"
      label="Photograph at this step"
      look="link"
      taken={(files) => files.forEach((file) => ticks.tick(step, done, '', file))}
    />
    {#each noted.photos as photo, n (photo)}
      <Photo file={photo} alt="Photograph {n + 1} at this step" />
    {/each}
  {/if}
</div>
