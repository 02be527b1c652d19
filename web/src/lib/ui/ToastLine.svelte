<script lang="ts">
  import { start } from '../attempt';
  import { toast } from '../toast.svelte';
</script>

<div class="toast" role="status" class:empty={!toast.text}>
  {#if toast.text}
    <span>{toast.text}</span>
    {#if toast.undo}
      <button
        class="undo"
        onclick={() => {
          const { undo } = toast;
          toast.hide();
          start(async () => {
            await undo?.();
          });
        }}>Undo</button
      >
    {/if}
    <button class="close" aria-label="Hide this" onclick={() => toast.hide()}>×</button>
  {/if}
</div>

<style>
  .toast {
    position: fixed;
    left: 24px;
    bottom: 20px;
    z-index: 40;
    display: flex;
    align-items: center;
    gap: 16px;
    padding: 10px 16px;
    background: var(--ink);
    color: var(--paper);
    max-width: 640px;
  }
  .empty {
    padding: 0;
    background: none;
  }
  .undo {
    font-weight: 650;
    text-decoration: underline;
    text-underline-offset: 3px;
  }
  .close {
    font-size: 20px;
    line-height: 1;
  }
  .toast :focus-visible {
    outline-color: var(--paper);
  }
</style>
