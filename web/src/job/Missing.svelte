<script lang="ts">
  // What is still missing, each a way to its field.
  import { start } from '../lib/attempt';
  import { fieldOf, goTo } from './missing';
  import type { JobDesk } from './job.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const names = $derived(desk.typed.parts.map((part) => part.name));
</script>

{#each desk.work.view?.docket.missing ?? [] as thing (thing)}
  {@const field = fieldOf(thing, names)}
  <li class="relative mt-1 pl-5.5">
    <span class="border-ink absolute top-1.5 left-0.5 h-2.5 w-2.5 border" aria-hidden="true"></span>
    {#if field}<button class="link text-left" type="button" onclick={() => start(() => goTo(field, desk))}
        >{thing}</button
      >{:else}{thing}{/if}
  </li>
{/each}
