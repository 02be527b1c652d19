<script lang="ts">
  import { start } from '../attempt';
  import { router } from '../router.svelte';
  import { toast } from '../toast.svelte';
</script>

<div
  class="toast bg-ink text-paper fixed {router.room.name === 'pack'
    ? 'bottom-28'
    : 'max-narrow:bottom-16 bottom-5'} max-narrow:left-3 left-6 z-40 flex max-w-[640px] items-center gap-4 px-4 py-2.5"
  role="status"
  class:empty={!toast.text}
>
  {#if toast.text}
    <span class="focus-visible:[outline-color:var(--paper)]">{toast.text}</span>
    {#if toast.undo}
      <button
        class="font-title underline underline-offset-[3px] focus-visible:[outline-color:var(--paper)]"
        onclick={() => {
          const { undo } = toast;
          toast.hide();
          start(async () => {
            await undo?.();
          });
        }}>Undo</button
      >
    {/if}
    <button
      class="close text-head leading-[1] focus-visible:[outline-color:var(--paper)]"
      aria-label="Hide this"
      onclick={() => toast.hide()}>×</button
    >
  {/if}
</div>

<style>
  .empty {
    padding: 0;
    background: none;
  }
</style>
