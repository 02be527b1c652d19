<script lang="ts">
  // A slip of paper over the page: it takes the keyboard until it is closed.
  import type { Snippet } from 'svelte';
  import { Dialog } from 'bits-ui';

  interface Props {
    open: boolean;
    title: string;
    about: string;
    /** The words of the button that opens it, and how that looks; none where something else does. */
    opener?: string;
    look?: 'btn' | 'link';
    /** Done when it is opened by its button. */
    opened?: () => void;
    children: Snippet;
    /** Buttons beside the one that closes it. */
    deeds?: Snippet;
  }
  let { open = $bindable(), title, about, opener, look = 'link', opened, children, deeds }: Props = $props();
</script>

<Dialog.Root bind:open onOpenChange={(shown) => shown && opened?.()}>
  {#if opener}<Dialog.Trigger class={look}>{opener}</Dialog.Trigger>{/if}
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-45 bg-[rgb(0_0_0_/_45%)]" />
    <Dialog.Content
      class="slip border-edge bg-sheet fixed top-22.5 left-1/2 z-50 w-[min(430px,calc(100vw_-_32px))] -translate-x-1/2 border px-6 py-5"
    >
      <Dialog.Title class="text-head font-title">{title}</Dialog.Title>
      <Dialog.Description class="text-soft text-note">{about}</Dialog.Description>
      {@render children()}
      {@render deeds?.()}
      <Dialog.Close class="btn" type="button">Close</Dialog.Close>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
