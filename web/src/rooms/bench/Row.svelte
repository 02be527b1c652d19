<script lang="ts">
  import type { JobRow } from '../../lib/api/client';
  import Knot from '../../lib/draw/Knot.svelte';
  import { cord, places } from '../../lib/draw/twine';
  import { follow } from '../../lib/router.svelte';

  interface Props {
    job: JobRow;
    putAway: boolean;
    takeOff: () => void;
  }
  let { job, putAway, takeOff }: Props = $props();

  const spots = $derived(places(job.knots.length, 34, 186, 24));
  const path = $derived(cord({ x: 0, y: 22 }, spots, { x: 220, y: 27 }));
  // The first knot that is not tied is where the work goes on.
  const station = $derived(
    job.knots.find((knot) => knot.state !== 'tied')?.name ?? (job.knots.length ? 'box' : 'measure'),
  );
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

<li class:stale={job.stale}>
  {#if job.unreadable}
    <div class="row unreadable">
      <span class="cannot">Cannot be read</span>
      <span class="title">{job.title || 'Untitled job'}</span>
      <span class="fault">{job.unreadable}</span>
      <a class="link" href="/api/jobs/{job.id}/text" download>Save its text</a>
    </div>
  {:else}<a class="row" href="/jobs/{job.id}/{station}" onclick={follow}>
      <svg width="220" height="46" role="img" aria-label={progress}>
        <path d={path} fill="none" stroke="var(--twine)" stroke-width="3" />
        <path d={path} fill="none" stroke="var(--twine-light)" stroke-width="1.4" stroke-dasharray="4 5" />
        {#each job.knots as knot, n (knot.name)}
          <Knot x={spots[n]?.x ?? 0} y={spots[n]?.y ?? 0} state={knot.state} size={0.82} />
        {/each}
      </svg>
      <span class="title">{job.title || 'Untitled job'}</span>
      <span class="next">{job.next_move || (job.stale ? 'Calculating…' : '')}</span>
      <span class="place">{job.destination ? `to ${job.destination}` : ''}</span>
      <span class="day">{day}</span>
    </a>{/if}
  <button
    class="away"
    onclick={takeOff}
    aria-label="{putAway ? 'Restore' : 'Archive'}: {job.title || 'Untitled job'}"
  >
    {putAway ? 'Restore' : 'Archive'}
  </button>
</li>

<style>
  li {
    display: flex;
    align-items: center;
    border-top: 1px solid var(--hair);
  }
  li:hover,
  li:focus-within {
    background: var(--sheet);
  }
  .unreadable {
    min-height: 60px;
  }
  .unreadable .link {
    grid-column: 4 / 6;
  }
  .cannot {
    border-left: 4px solid var(--stop);
    padding-left: 10px;
    color: var(--stop);
    font-weight: 600;
  }
  .fault {
    color: var(--stop);
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .stale .next {
    color: var(--soft);
  }
  .row {
    flex: 1;
    min-width: 0;
    display: grid;
    grid-template-columns: 220px minmax(0, 1.2fr) minmax(0, 1fr) 90px 96px;
    gap: 20px;
    align-items: center;
    padding: 7px 0;
    text-decoration: none;
  }
  .title {
    font-weight: 600;
    font-size: 16.5px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .next {
    color: var(--twine);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .place,
  .day {
    color: var(--soft);
    font-size: 14.5px;
    white-space: nowrap;
  }
  .away {
    width: 104px;
    padding: 8px 10px;
    font-size: 14px;
    color: var(--soft);
    text-align: right;
  }
  .away:hover {
    color: var(--ink);
    text-decoration: underline;
  }
  @media (max-width: 900px) {
    .row {
      grid-template-columns: 1fr auto;
      gap: 2px 14px;
    }
    svg {
      display: none;
    }
    .place {
      display: none;
    }
    .title,
    .next,
    .fault {
      grid-column: 1;
    }
    .unreadable .link {
      grid-column: 1;
    }
    .day {
      grid-column: 2;
      grid-row: 1;
    }
  }
</style>
