<script lang="ts">
  // The blank folding up around the goods: a slider folds it, arrow keys or a drag turn it.
  import { onDestroy, onMount } from 'svelte';
  import { Asked } from '../../lib/asked.svelte';
  import type { JobDesk } from '../../job/job.svelte';
  import { calls } from '../../lib/api/client';
  import type { Folding } from '../../lib/view3d/folding';
  import { turnedByHand } from '../../lib/view3d/hands';
  import { ink, onTheme } from '../../lib/view3d/inks';

  interface Props {
    desk: JobDesk;
    way: string;
    blank: string;
  }
  let { desk, way, blank }: Props = $props();

  const PLAY_MS = 1600;

  let canvas: HTMLCanvasElement;
  let width = $state(560);
  let height = $state(300);
  let table = $state.raw<Folding | null>(null);
  let missing = $state(false);
  let folded = $state(60);
  let count = $state(0);
  let left = false;
  let frame = 0;

  function draw(): void {
    if (!table || !width || !height) return;
    table.fold(folded / 100);
    table.draw(width, height);
    count = table.count;
  }
  function paint(): void {
    const inks = { board: ink('--board-pale'), boardDeep: ink('--board-deep'), thing: ink('--board') };
    table?.paint({ ...inks, extra: ink('--hair2'), ink: ink('--ink') });
    draw();
  }

  onMount(async () => {
    try {
      const { Folding: Made } = await import('../../lib/view3d/folding');
      if (left) return;
      table = new Made(canvas);
    } catch {
      missing = true;
      return;
    }
    paint();
  });
  onDestroy(() => {
    left = true;
    cancelAnimationFrame(frame);
    table?.leave();
  });

  $effect(() => onTheme(paint));
  const asked = new Asked(() => {
    const body = { way };
    void desk.work.view; // anew whenever the job was worked out anew
    return (signal) => calls.fold({ job: desk.job, ...body }, signal);
  });
  const view = $derived(asked.answer);
  const trouble = $derived(
    missing
      ? 'This browser draws nothing in three dimensions; the flat drawing has every size.'
      : asked.trouble,
  );
  $effect(() => {
    if (!table || !view) return;
    table.show(view, blank);
    draw();
  });
  $effect(() => {
    if (width && height && folded >= 0) draw();
  });

  function play(): void {
    if (matchMedia('(prefers-reduced-motion: reduce)').matches) {
      folded = folded < 100 ? 100 : 0;
      return;
    }
    const since = performance.now();
    const tick = (now: number) => {
      if (left) return;
      folded = Math.min(100, ((now - since) / PLAY_MS) * 100);
      if (folded < 100) frame = requestAnimationFrame(tick);
    };
    cancelAnimationFrame(frame);
    frame = requestAnimationFrame(tick);
  }

  function byHand(around: number, tilt: number): void {
    table?.turn(around, tilt);
    draw();
  }
  const hands = turnedByHand(byHand);
</script>

<div class="fold">
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div
    class="view"
    role="img"
    aria-label="The {blank} folding up around the goods; arrow keys turn it"
    tabindex="0"
    data-panels={count}
    bind:clientWidth={width}
    bind:clientHeight={height}
    {...hands}
  >
    <canvas bind:this={canvas} aria-hidden="true"></canvas>
  </div>
  <div class="bar">
    <label for="folded">Folded</label>
    <input id="folded" type="range" min="0" max="100" step="1" bind:value={folded} />
    <button type="button" class="link" onclick={play}>Fold it</button>
    {#if trouble}<span class="no" role="status">{trouble}</span>{/if}
  </div>
</div>

<style>
  .view {
    position: relative;
    height: 300px;
    touch-action: none;
    cursor: grab;
  }
  canvas {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
  }
  .bar {
    display: flex;
    gap: 12px;
    align-items: center;
    min-height: 32px;
    font-size: 14px;
    color: var(--soft);
  }
  input {
    flex: 1;
    max-width: 320px;
    accent-color: var(--twine);
  }
  .no {
    color: var(--stop);
  }
</style>
