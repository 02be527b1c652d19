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
  <label
    ><input
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

<style>
  label {
    display: flex;
    gap: 7px;
    align-items: center;
    padding: 2px 0;
    font-size: 14px;
    color: var(--soft);
  }
  input {
    width: 17px;
    height: 17px;
    accent-color: var(--twine);
  }
</style>
