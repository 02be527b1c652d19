<script lang="ts">
  import { Dialog } from 'bits-ui';
  import { keys } from '../keys.svelte';
</script>

<Dialog.Root bind:open={keys.shown}>
  <Dialog.Portal>
    <Dialog.Overlay class="keys-veil" />
    <Dialog.Content class="keys-slip">
      <Dialog.Title class="keys-title">Keys</Dialog.Title>
      <Dialog.Description class="keys-about"
        >They work while no field has the focus; Escape leaves a field.</Dialog.Description
      >
      <dl class="mx-0 mt-3.5 mb-4.5 grid grid-cols-[56px_1fr] gap-x-3 gap-y-2">
        {#each keys.list as key (key.key)}
          <dt><kbd class="border-edge border px-2.25 py-px font-mono">{key.key}</kbd></dt>
          <dd>{key.does}</dd>
        {/each}
        <dt><kbd class="border-edge border px-2.25 py-px font-mono">?</kbd></dt>
        <dd>this list</dd>
      </dl>
      <Dialog.Close class="btn">Close</Dialog.Close>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>

<style>
  :global(.keys-veil) {
    position: fixed;
    inset: 0;
    z-index: 45;
    background: color-mix(in srgb, var(--ink) 35%, transparent);
  }
  :global(.keys-slip) {
    position: fixed;
    z-index: 50;
    top: 90px;
    left: 50%;
    width: min(430px, calc(100vw - 32px));
    margin-left: calc(min(430px, 100vw - 32px) / -2);
    padding: 20px 24px;
    background: var(--sheet);
    border: 1px solid var(--edge);
  }
  :global(.keys-title) {
    font-size: var(--text-head);
    font-weight: 650;
  }
  :global(.keys-about) {
    color: var(--soft);
    font-size: var(--text-note);
  }
</style>
