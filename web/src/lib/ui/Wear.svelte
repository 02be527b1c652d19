<script lang="ts">
  // What is so of a used box: each answer takes its share off the strength it is trusted with.
  import { shop } from '../shop.svelte';
  import Tick from './Tick.svelte';

  interface Props {
    worn: string[];
    change: (worn: string[]) => void;
  }
  let { worn, change }: Props = $props();
</script>

{#each shop.view?.wear ?? [] as one (one.value)}
  <Tick
    checked={worn.includes(one.value)}
    change={(on) => change(on ? [...worn, one.value] : worn.filter((other) => other !== one.value))}
    >{one.says}</Tick
  >
{/each}
