<script lang="ts">
  // What is so of a used box: each answer takes its share off the strength it is trusted with.
  import { shop } from '../shop.svelte';

  interface Props {
    worn: string[];
    change: (worn: string[]) => void;
  }
  let { worn, change }: Props = $props();
</script>

{#each shop.view?.wear ?? [] as one (one.value)}
  <label class="text-soft text-note flex items-center gap-1.75 px-0 py-0.5"
    ><input
      class="accent-twine h-4.25 w-4.25"
      type="checkbox"
      checked={worn.includes(one.value)}
      onchange={(event) =>
        change(
          event.currentTarget.checked ? [...worn, one.value] : worn.filter((other) => other !== one.value),
        )}
    />
    {one.says}</label
  >
{/each}
