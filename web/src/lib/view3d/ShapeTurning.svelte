<script lang="ts">
  // The shape of a part, turning slowly; it stops where it is turned by hand or where less motion is asked for.
  import { onDestroy, onMount } from 'svelte';
  import type { ShapeView } from '../api/client';
  import { turnedByHand } from './hands';
  import { ink, onTheme } from './inks';
  import Measured from '../ui/Measured.svelte';
  import type { Place, Turntable } from './turntable';

  interface Props {
    shape: ShapeView | null;
    name: string;
    /** What is typed is not what is shown. */
    stale?: boolean;
  }
  let { shape, name, stale = false }: Props = $props();

  const SLOW = 0.00025; // radians a millisecond

  let canvas: HTMLCanvasElement;
  let width = $state(256);
  let height = $state(220);
  let places = $state.raw<Place[]>([]);
  let missing = $state(false);
  let table = $state.raw<Turntable | null>(null);
  let turning = !matchMedia('(prefers-reduced-motion: reduce)').matches;
  let frame = 0;
  let left = false;
  let last = 0;

  function paint(): void {
    table?.paint({ board: ink('--board'), ink: ink('--board-deep'), line: ink('--twine') });
    draw();
  }

  function draw(): void {
    if (table && shape && width && height) places = table.draw(width, height);
  }

  function tick(now: number): void {
    if (left) return;
    if (turning && last && document.visibilityState === 'visible') {
      table?.turn((now - last) * SLOW, 0);
      draw();
    }
    last = now;
    frame = turning ? requestAnimationFrame(tick) : 0;
  }

  onMount(async () => {
    try {
      const { Turntable: Made } = await import('./turntable');
      if (left) return;
      table = new Made(canvas);
    } catch {
      missing = true;
      return;
    }
    paint();
    frame = requestAnimationFrame(tick);
  });
  onDestroy(() => {
    left = true;
    cancelAnimationFrame(frame);
    table?.leave();
  });

  $effect(() => onTheme(paint));
  $effect(() => {
    if (!table || !shape) return;
    table.show(shape);
    draw();
  });
  $effect(() => {
    if (width && height) draw();
  });

  function byHand(around: number, tilt: number): void {
    turning = false;
    table?.turn(around, tilt);
    draw();
  }
  const hands = turnedByHand(byHand);
</script>

<!-- Turned by the pointer or by the arrow keys. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div
  class="turntable relative h-55 cursor-grab touch-none overflow-hidden"
  class:stale
  role="img"
  aria-label="Shape of {name}{shape ? '' : ', not measured yet'}; arrow keys turn it"
  tabindex="0"
  data-shown={places.length}
  bind:clientWidth={width}
  bind:clientHeight={height}
  {...hands}
>
  <canvas class="absolute top-0 right-0 bottom-0 left-0 h-full w-full" bind:this={canvas} aria-hidden="true"
  ></canvas>
  {#if shape && !missing}
    {#each places as place (place.name)}
      <span
        class="word figure text-note pointer-events-none absolute [transform:translate(-50%,-50%)] px-1 py-0 leading-[1.25] [background:color-mix(in_srgb,var(--sheet)_86%,transparent)]"
        style:left="{place.x}px"
        style:top="{place.y}px"><Measured text={place.text} unitSoft={false} /></span
      >
    {/each}
  {:else}
    <p
      class="text-soft text-note absolute top-0 right-0 bottom-0 left-0 grid [place-items:center] px-4.5 py-0 text-center"
    >
      {missing
        ? 'This browser draws nothing in three dimensions; the sizes are below.'
        : 'Its shape turns here as soon as it is measured.'}
    </p>
  {/if}
</div>

<style>
  .stale {
    opacity: 0.45;
  }
</style>
