<script lang="ts">
  // The blank folding up around the goods: a slider folds it, arrow keys or a drag turn it.
  import Slide from '../../lib/ui/Slide.svelte';
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
    class="view relative h-75 cursor-grab touch-none"
    role="img"
    aria-label="The {blank} folding up around the goods; arrow keys turn it"
    tabindex="0"
    data-panels={count}
    bind:clientWidth={width}
    bind:clientHeight={height}
    {...hands}
  >
    <canvas class="absolute top-0 right-0 bottom-0 left-0 h-full w-full" bind:this={canvas} aria-hidden="true"
    ></canvas>
  </div>
  <div class="bar text-soft text-note flex min-h-8 items-center gap-3">
    <span aria-hidden="true">Folded</span>
    <Slide id="folded" label="Folded" most={100} place="max-w-80 flex-1" bind:value={folded} />
    <button type="button" class="link" onclick={play}>Fold it</button>
    {#if trouble}<span class="no text-stop" role="status">{trouble}</span>{/if}
  </div>
</div>
