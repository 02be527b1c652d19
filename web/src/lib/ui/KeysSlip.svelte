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
      <dl>
        {#each keys.list as key (key.key)}
          <dt><kbd>{key.key}</kbd></dt>
          <dd>{key.does}</dd>
        {/each}
        <dt><kbd>?</kbd></dt>
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
    font-size: 19px;
    font-weight: 650;
  }
  :global(.keys-about) {
    color: var(--soft);
    font-size: 14px;
  }
  dl {
    display: grid;
    grid-template-columns: 56px 1fr;
    gap: 8px 12px;
    margin: 14px 0 18px;
  }
  kbd {
    font-family: var(--font-mono);
    border: 1px solid var(--edge);
    padding: 1px 9px;
  }
</style>
