<script lang="ts">
  // The job as one length of twine, its knots the stations, its end tied through the docket's hole.
  import type { KnotView } from '../lib/api/client';
  import Knot from '../lib/draw/Knot.svelte';
  import { cord, places } from '../lib/draw/twine';
  import { follow, STATIONS, type Station } from '../lib/router.svelte';

  interface Props {
    id: string;
    station: Station;
    knots: KnotView[];
  }
  let { id, station, knots }: Props = $props();

  let width = $state(1232);
  const REST = 34;
  const docket = $derived(width > 840 ? 142 : 20); // from the right edge to the docket's hole
  const spots = $derived(places(STATIONS.length, 60, Math.max(width - docket - 330, 260), REST));
  const path = $derived(cord({ x: 0, y: REST - 3 }, spots, { x: width - docket, y: 88 }, true));
  const names: Record<Station, string> = {
    measure: 'Measure',
    protect: 'Protect',
    arrange: 'Arrange',
    box: 'Box',
    price: 'Price',
  };
  const stateOf = (name: Station) => knots.find((knot) => knot.name === name);
</script>

<nav class="twine" aria-label="Knots of this job" bind:clientWidth={width}>
  <svg {width} height="88" aria-hidden="true">
    <path d={path} fill="none" stroke="var(--twine)" stroke-width="3.4" />
    <path d={path} fill="none" stroke="var(--twine-light)" stroke-width="1.6" stroke-dasharray="4 5" />
    {#each STATIONS as name, n (name)}
      {@const spot = spots[n] ?? { x: 0, y: 0 }}
      {#if name === station}<circle cx={spot.x} cy={spot.y - 3} r="20" fill="var(--twine-pale)" />{/if}
      <Knot x={spot.x} y={spot.y} state={stateOf(name)?.state ?? 'open'} size={name === station ? 1.12 : 1} />
    {/each}
  </svg>
  {#each STATIONS as name, n (name)}
    {@const knot = stateOf(name)}
    <a
      href="/jobs/{id}/{name}"
      onclick={follow}
      style:left="{spots[n]?.x ?? 0}px"
      aria-current={name === station ? 'step' : undefined}
      title={knot?.says}
    >
      {names[name]}<span class="sr-only">: {knot?.state ?? 'open'}</span>
      {#if knot?.state === 'loose'}<small>{knot.says}</small>{/if}
    </a>
  {/each}
</nav>

<style>
  .twine {
    grid-column: 1 / -1;
    position: relative;
    height: 88px;
  }
  a {
    position: absolute;
    top: 4px;
    transform: translateX(-50%);
    padding: 50px 18px 4px;
    text-decoration: none;
    color: var(--soft);
    text-align: center;
    white-space: nowrap;
  }
  a:hover {
    color: var(--ink);
  }
  a[aria-current] {
    color: var(--ink);
    font-weight: 700;
    font-size: 16.5px;
  }
  small {
    font-size: 12.5px;
    font-weight: 500;
    color: var(--amber);
    position: absolute;
    left: calc(100% - 12px);
    bottom: 4px;
    width: 150px;
    line-height: 1.15;
    text-align: left;
    white-space: normal;
  }
</style>
