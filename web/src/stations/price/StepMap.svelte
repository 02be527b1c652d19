<script lang="ts">
  // Where the nearest cheaper point is: what to trim and what it saves, and the price over two sides as plain bands,
  // lighter where it is cheaper, the box a mark among them.
  import Choose from '../../lib/ui/Choose.svelte';
  import { Asked } from '../../lib/asked.svelte';
  import type { JobDesk } from '../../job/job.svelte';
  import { calls, type QuoteView, type StepsRequest } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import Measured from '../../lib/ui/Measured.svelte';

  interface Props {
    desk: JobDesk;
    way: string;
    quote: QuoteView;
  }
  let { desk, way, quote }: Props = $props();

  const WIDTH = 460;
  const HEIGHT = 300;
  const LEFT = 74;
  const FOOT = 40;

  let sides = $state<StepsRequest['sides']>('longest and second');
  let reach = $state('');
  const reaches = $derived(
    shop.units === 'in' ? ['3 in', '5 in', '8 in', '12 in'] : ['5 cm', '10 cm', '20 cm', '30 cm'],
  );

  const asked = new Asked(() => {
    void desk.work.view; // anew whenever the job was worked out anew
    const { carrier, service, programme } = quote;
    const body = { way, carrier, service, programme, sides, reach: reach || null };
    return (signal) => calls.steps({ job: desk.job, ...body }, signal);
  });
  const view = $derived(asked.answer);
  const trouble = $derived(asked.trouble);

  const drawn = $derived.by(() => {
    if (!view?.map) return null;
    const { first_mm, second_mm, bands, prices, here, first, second } = view.map;
    const [low, high] = [first_mm[0] ?? 0, first_mm.at(-1) ?? 1];
    const [near, far] = [second_mm[0] ?? 0, second_mm.at(-1) ?? 1];
    const x = (mm: number) => LEFT + ((mm - low) / (high - low || 1)) * (WIDTH - LEFT - 8);
    const y = (mm: number) => HEIGHT - FOOT - ((mm - near) / (far - near || 1)) * (HEIGHT - FOOT - 8);
    const edge = (sides: number[], n: number) =>
      n <= 0
        ? (sides[0] ?? 0)
        : n >= sides.length
          ? (sides.at(-1) ?? 0)
          : ((sides[n - 1] ?? 0) + (sides[n] ?? 0)) / 2;
    const cells = bands.map((band) => {
      const [a, b] = [x(edge(first_mm, band.start)), x(edge(first_mm, band.end + 1))];
      const [top, foot] = [y(edge(second_mm, band.last + 1)), y(edge(second_mm, band.row))];
      const rank = band.price === null ? -1 : prices.indexOf(band.price) / Math.max(1, prices.length - 1);
      return { x: a, y: top, width: b - a, height: foot - top + 0.4, price: band.price, rank };
    });
    const mark = { x: x(first_mm[here[0]] ?? 0), y: y(second_mm[here[1]] ?? 0) };
    // Each price is written once, in the middle of its band, where it runs into no other.
    const sums: Record<string, { area: number; x: number; y: number }> = {};
    for (const cell of cells) {
      if (cell.price === null) continue;
      const area = cell.width * cell.height;
      const sum = (sums[cell.price] ??= { area: 0, x: 0, y: 0 });
      sum.area += area;
      sum.x += area * (cell.x + cell.width / 2);
      sum.y += area * (cell.y + cell.height / 2);
    }
    const words: { price: string; x: number; y: number }[] = [];
    for (const [price, sum] of Object.entries(sums).sort(([, a], [, b]) => b.area - a.area)) {
      const at = { price, x: sum.x / sum.area, y: sum.y / sum.area };
      const clear = [...words, mark].every(
        (other) => Math.abs(other.x - at.x) > 50 || Math.abs(other.y - at.y) > 17,
      );
      if (clear && sum.area > 900) words.push(at);
    }
    const arrows = view.points.flatMap(({ what, to_mm, saves }) => {
      const axis = view?.map?.sides.indexOf(what) ?? -1;
      if (to_mm === null || to_mm === undefined || axis < 0) return [];
      const to = axis === 0 ? { x: x(to_mm), y: mark.y } : { x: mark.x, y: y(to_mm) };
      return [{ ...to, saves, name: `${what} ${to_mm}` }];
    });
    return {
      cells,
      words,
      arrows,
      mark,
      first: [first[0], first.at(-1)],
      second: [second[0], second.at(-1)],
      sides: view.map.sides,
    };
  });
</script>

<section
  class="sheet steps max-desk:grid-cols-[minmax(0,1fr)] mb-3 grid min-h-81.5 grid-cols-[minmax(0,1fr)_minmax(0,460px)] gap-4.5 px-4 py-3"
  class:flat={view !== null && !view.map}
  aria-label="Cheaper steps of {quote.carrier} {quote.service}"
>
  <div>
    <h3 class="font-title">Savings with {quote.carrier} {quote.service}</h3>
    {#if trouble}<p class="no text-stop" role="status">{trouble}</p>{/if}
    {#if view}
      <ul>
        {#each view.points as point (`${point.what} ${point.by}`)}
          <li class="border-t-hair border-t px-0 py-1.5">
            Saves <b class="figure text-lead">{point.saves}</b>: reduce the {point.what} by
            <Measured text={point.by} /> to <Measured text={point.to} />{point.what === 'girth'
              ? ', off both sides across alike'
              : ''}
            <small class="text-soft text-small block">{point.why}</small>
          </li>
        {:else}
          <li class="border-t-hair border-t px-0 py-1.5">
            Nothing within {reach || 'a few inches'} of a side, or two pounds, makes it cheaper.
          </li>
        {/each}
        {#if view.container}<li class="border-t-hair border-t px-0 py-1.5">{view.container}</li>{/if}
      </ul>
    {/if}
    <div class="asks text-soft text-small mt-2.5 flex flex-wrap gap-x-4 gap-y-1.5">
      <Choose
        id="map-reach"
        label="Search within"
        place="h-8.5 w-36"
        bind:value={reach}
        options={[['', 'a few inches'], ...reaches]}
      />
      {#if view?.map}<Choose
          id="map-axes"
          label="Map axes"
          place="h-8.5 w-48"
          bind:value={sides}
          options={['longest and second', 'longest and third', 'second and third']}
        />{/if}
    </div>
  </div>
  {#if drawn}
    <svg
      viewBox="0 0 {WIDTH} {HEIGHT}"
      role="img"
      aria-label="Price over the {sides} side, your box the mark, arrows the trims that pay; lighter is cheaper, hatched is not taken"
    >
      <defs>
        <pattern
          id="not-taken"
          width="6"
          height="6"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line x1="0" y1="0" x2="0" y2="6" class="hatch" />
        </pattern>
        <marker
          id="arrow-head"
          viewBox="0 0 8 8"
          refX="7"
          refY="4"
          markerWidth="7"
          markerHeight="7"
          orient="auto"
        >
          <path d="M0 0L8 4L0 8Z" class="head" />
        </marker>
      </defs>
      {#each drawn.cells as cell, n (n)}
        <rect
          x={cell.x}
          y={cell.y}
          width={cell.width}
          height={cell.height}
          class="cell"
          style:fill={cell.rank < 0 ? 'url(#not-taken)' : undefined}
          style:--dear={`${Math.round(12 + Math.max(cell.rank, 0) * 70)}%`}
        />
      {/each}
      {#each drawn.words as cell (cell.price)}
        <text x={cell.x} y={cell.y + 4} class="price">{cell.price}</text>
      {/each}
      {#each drawn.arrows as arrow (arrow.name)}
        <line
          x1={drawn.mark.x}
          y1={drawn.mark.y}
          x2={arrow.x}
          y2={arrow.y}
          class="arrow"
          marker-end="url(#arrow-head)"
        />
      {/each}
      <circle cx={drawn.mark.x} cy={drawn.mark.y} r="5" class="mark" />
      <text x={LEFT} y={HEIGHT - FOOT + 18} class="side">{drawn.first[0]}</text>
      <text x={WIDTH - 8} y={HEIGHT - FOOT + 18} class="side end">{drawn.first[1]}</text>
      <text x={(WIDTH + LEFT) / 2} y={HEIGHT - 6} class="side middle">{drawn.sides[0]}</text>
      <text x={LEFT - 6} y={HEIGHT - FOOT} class="side end">{drawn.second[0]}</text>
      <text x={LEFT - 6} y="18" class="side end">{drawn.second[1]}</text>
      <text x={LEFT - 6} y={(HEIGHT - FOOT) / 2} class="side end">{drawn.sides[1].split(' ')[0]}</text>
    </svg>
  {/if}
</section>

<style>
  .steps.flat {
    min-height: 0;
    grid-template-columns: minmax(0, 1fr);
  }

  svg {
    width: 100%;
    height: auto;
  }
  .cell {
    fill: color-mix(in srgb, var(--board) var(--dear), var(--sheet));
  }
  .hatch {
    stroke: var(--soft);
    stroke-width: 1.4;
  }
  .price {
    font-family: var(--font-mono);
    font-weight: 600;
    font-size: var(--text-small);
    text-anchor: middle;
    fill: var(--ink);
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 3px;
  }
  .arrow {
    stroke: var(--ink);
    stroke-width: 2;
  }
  .head {
    fill: var(--ink);
  }
  .mark {
    fill: var(--twine);
    stroke: var(--sheet);
    stroke-width: 2.5px;
  }
  .side {
    font-size: var(--text-fine);
    fill: var(--soft);
  }
  .end {
    text-anchor: end;
  }
  .middle {
    text-anchor: middle;
  }
</style>
