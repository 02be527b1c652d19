<script lang="ts">
  // The job as one length of twine, its knots the stations, its end tied through the docket's hole.
  import type { KnotView } from '../lib/api/client';
  import Knot from '../lib/draw/Knot.svelte';
  import { cord, places } from '../lib/draw/twine';
  import { follow, KNOTS, type Station } from '../lib/router.svelte';

  interface Props {
    id: string;
    station: Station;
    knots: KnotView[];
    /** Before another page: what is typed is saved. */
    pack: (event: MouseEvent) => void;
  }
  let { id, station, knots, pack }: Props = $props();

  let width = $state(1232);
  const REST = 34;
  const docket = $derived(width > 840 ? 142 : 20); // from the right edge to the docket's hole
  const spots = $derived(
    width < 560
      ? places(KNOTS.length, 26, width - 46, REST)
      : places(KNOTS.length, 50, Math.max(width - docket - 215, 260), REST),
  );
  const path = $derived(cord({ x: 0, y: REST - 3 }, spots, { x: width - docket, y: 88 }, true));
  const names: Record<(typeof KNOTS)[number], string> = {
    measure: 'Measure',
    protect: 'Protect',
    arrange: 'Arrange',
    box: 'Box',
    price: 'Price',
    pack: 'Pack',
    sent: 'Sent',
  };
  const stateOf = (name: string) => knots.find((knot) => knot.name === name);
</script>

<nav class="twine relative col-span-full h-22" aria-label="Knots of this job" bind:clientWidth={width}>
  <svg {width} height="88" aria-hidden="true">
    <path d={path} fill="none" stroke="var(--twine)" stroke-width="3.4" />
    <path d={path} fill="none" stroke="var(--twine-light)" stroke-width="1.6" stroke-dasharray="4 5" />
    {#each KNOTS as name, n (name)}
      {@const spot = spots[n] ?? { x: 0, y: 0 }}
      {#if name === station}<circle cx={spot.x} cy={spot.y - 3} r="20" fill="var(--twine-pale)" />{/if}
      <Knot x={spot.x} y={spot.y} state={stateOf(name)?.state ?? 'open'} size={name === station ? 1.12 : 1} />
    {/each}
  </svg>
  {#each KNOTS as name, n (name)}
    {@const knot = stateOf(name)}
    <a
      class="text-soft hover:text-ink [&[aria-current]]:text-ink [&[aria-current]]:text-lead max-phone:px-0 max-phone:text-fine max-phone:[&[aria-current]]:text-fine absolute top-1 [transform:translateX(-50%)] px-4.5 pt-12.5 pb-1 text-center whitespace-nowrap no-underline [&[aria-current]]:font-bold"
      href="/jobs/{id}/{name}"
      onclick={name === 'pack' ? pack : follow}
      style:left="{spots[n]?.x ?? 0}px"
      aria-current={name === station ? 'step' : undefined}
      title={knot?.says}
    >
      {names[name]}<span class="sr-only">: {knot?.state ?? 'open'}</span>
      {#if knot?.state === 'loose'}<small
          class="text-amber text-fine absolute bottom-1 left-[calc(100%_-_12px)] w-37.5 text-left leading-[1.15] font-medium whitespace-normal"
          >{knot.says}</small
        >{/if}
    </a>
  {/each}
</nav>
