<script lang="ts">
  import type { JobRow } from '../../lib/api/client';
  import Knot from '../../lib/draw/Knot.svelte';
  import { cord, places } from '../../lib/draw/twine';
  import { follow } from '../../lib/router.svelte';
  import { stationOf } from './station';

  interface Props {
    job: JobRow;
    archived: boolean;
    takeOff: () => void;
  }
  let { job, archived, takeOff }: Props = $props();

  const spots = $derived(places(job.knots.length, 34, 186, 24));
  const path = $derived(cord({ x: 0, y: 22 }, spots, { x: 220, y: 27 }));
  const station = $derived(stationOf(job));
  const progress = $derived(
    job.knots.map((knot) => `${knot.name} ${knot.state}`).join(', ') || 'being calculated',
  );
  const day = $derived(
    job.day
      ? new Date(`${job.day}T12:00`).toLocaleDateString('en-GB', {
          weekday: 'short',
          day: 'numeric',
          month: 'short',
        })
      : '',
  );
</script>

<li
  class="border-t-hair hover:bg-sheet focus-within:bg-sheet flex items-center border-t"
  class:stale={job.stale}
>
  {#if job.unreadable}
    <div
      class="row unreadable max-narrow:gap-y-0.5 max-narrow:gap-x-3.5 max-narrow:grid-cols-[1fr_auto] grid min-h-15 min-w-0 flex-1 grid-cols-[220px_minmax(0,1.2fr)_minmax(0,1fr)_90px_96px] items-center gap-5 px-0 py-1.75 no-underline"
    >
      <span class="border-l-stop text-stop border-l-4 pl-2.5 font-semibold">Cannot be read</span>
      <span
        class="max-narrow:col-start-1 text-lead overflow-hidden font-semibold text-ellipsis whitespace-nowrap"
        >{job.title || 'Untitled job'}</span
      >
      <span class="text-stop max-narrow:col-start-1 overflow-hidden text-ellipsis">{job.unreadable}</span>
      <a class="link max-narrow:col-start-1 col-[4_/_6]" href="/api/jobs/{job.id}/text" download
        >Save its text</a
      >
    </div>
  {:else}<a
      class="row max-narrow:gap-y-0.5 max-narrow:gap-x-3.5 max-narrow:grid-cols-[1fr_auto] grid min-w-0 flex-1 grid-cols-[220px_minmax(0,1.2fr)_minmax(0,1fr)_128px_96px] items-center gap-5 px-0 py-1.75 no-underline"
      href="/jobs/{job.id}/{station}"
      onclick={follow}
    >
      <svg width="220" height="46" role="img" aria-label={progress}>
        <path d={path} fill="none" stroke="var(--twine)" stroke-width="3" />
        <path d={path} fill="none" stroke="var(--twine-light)" stroke-width="1.4" stroke-dasharray="4 5" />
        {#each job.knots as knot, n (knot.name)}
          <Knot x={spots[n]?.x ?? 0} y={spots[n]?.y ?? 0} state={knot.state} size={0.82} />
        {/each}
      </svg>
      <span
        class="max-narrow:col-start-1 max-phone:col-end-3 text-lead overflow-hidden font-semibold text-ellipsis whitespace-nowrap"
        >{job.title || 'Untitled job'}</span
      >
      <span
        class="next text-twine text-lead max-narrow:col-start-1 overflow-hidden text-ellipsis whitespace-nowrap"
        >{job.next_move || (job.stale ? 'Calculating…' : '')}</span
      >
      <span class="text-soft max-narrow:hidden text-note whitespace-nowrap"
        >{job.destination ? `to ${job.destination}` : ''}{#if job.left}<span
            class="figure block {job.left.startsWith('-') ? 'text-stop' : ''}">{job.left} left</span
          >{/if}</span
      >
      <span
        class="text-soft max-narrow:col-start-2 max-narrow:row-start-1 max-phone:row-start-2 text-note whitespace-nowrap"
        >{day}</span
      >
    </a>{/if}
  <button
    class="text-soft hover:text-ink text-note max-phone:w-auto max-phone:pr-0 w-26 px-2.5 py-2 text-right hover:underline"
    onclick={takeOff}
    aria-label="{archived ? 'Restore' : 'Archive'}: {job.title || 'Untitled job'}"
  >
    {archived ? 'Restore' : 'Archive'}
  </button>
</li>

<style>
  .stale .next {
    color: var(--soft);
  }

  @media (max-width: 860px) {
    svg {
      display: none;
    }
  }
</style>
