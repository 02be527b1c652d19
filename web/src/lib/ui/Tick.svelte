<script lang="ts">
  // A choice of yes or no with its words: the whole line is the target.
  import type { Snippet } from 'svelte';

  interface Props {
    checked: boolean | undefined;
    id?: string;
    change?: (on: boolean) => void;
    /** Where it stands among others. */
    place?: string;
    children: Snippet;
  }
  let { checked = $bindable(), id, change, place = '', children }: Props = $props();
</script>

<label class="tick text-ink text-note flex min-h-8 cursor-pointer items-center gap-1.75 {place}"
  ><input
    {id}
    class="accent-twine h-4.5 w-4.5 flex-none"
    type="checkbox"
    bind:checked
    onchange={(event) => change?.(event.currentTarget.checked)}
  />{@render children()}</label
>
