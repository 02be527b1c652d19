<script lang="ts">
  // Every field that cannot be read, each a way to it; a key goes from one to the next.
  import { tick } from 'svelte';
  import { keys } from '../lib/keys.svelte';
  import { router } from '../lib/router.svelte';
  import { placeOf } from './fields';
  import type { JobDesk } from './job.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const MOST = 8; // shown before the rest is asked for
  let all = $state(false);
  let last = $state('');
  const faults = $derived(
    (desk.work.view?.problems ?? []).map((problem) => ({
      ...problem,
      place: placeOf(problem.field, desk.typed),
    })),
  );
  const told = $derived(all ? faults : faults.slice(0, MOST));

  async function go(field: string): Promise<void> {
    const place = faults.find((fault) => fault.field === field)?.place;
    if (!place) return;
    last = field;
    const part = /^parts\[(\d+)\]/.exec(field);
    if (part) desk.parts.chosen = Number(part[1]);
    if (router.room.name === 'job' && router.room.station !== place.station)
      router.go(`/jobs/${desk.id}/${place.station}`);
    await tick();
    const at = document.getElementById(place.id);
    at?.focus();
    at?.scrollIntoView({ block: 'center' });
  }

  function next(): void {
    const there = faults.filter((fault) => fault.place);
    const at = there.findIndex((fault) => fault.field === last);
    const fault = there[(at + 1) % there.length];
    if (fault) void go(fault.field);
  }
  $effect(() => keys.add([{ key: 'e', does: 'to the next field that cannot be read', act: next }]));
</script>

{#if faults.length > 1}
  <section class="faults" aria-label="Fields that cannot be read">
    <p class="text-stop font-strong">
      {faults.length} fields cannot be read
      <kbd class="border-edge text-soft ml-1 border px-1.5 font-mono font-normal">e</kbd>
    </p>
    <ul>
      {#each told as fault (fault.field)}
        <li class="border-t-hair border-t py-1">
          {#if fault.place}
            <button
              type="button"
              class="link inline-block text-left first-letter:uppercase"
              onclick={() => void go(fault.field)}>{fault.place.says}</button
            >
          {:else}{fault.field}{/if}
          <span class="text-soft text-small block wrap-anywhere">{fault.sentence}</span>
        </li>
      {/each}
    </ul>
    {#if faults.length > MOST && !all}
      <button type="button" class="link text-note" onclick={() => (all = true)}
        >Show the other {faults.length - MOST}</button
      >
    {/if}
  </section>
{/if}
