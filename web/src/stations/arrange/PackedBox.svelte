<script lang="ts">
  // The packed box, lit: turned by a drag or the arrow keys, a thing grabbed and moved, stepped through as it is packed.
  import { onDestroy, onMount } from 'svelte';
  import type { PackedView, Side } from '../../lib/view3d/packed';
  import { ink, onTheme } from '../../lib/view3d/inks';
  import { shop } from '../../lib/shop.svelte';
  import type { Arranging } from './arranging.svelte';

  interface Props {
    arranging: Arranging;
    /** How thick the walls are, mm. */
    board: number;
    step: number;
    apart: number;
    wrapped: boolean;
  }
  let { arranging, board, step, apart, wrapped }: Props = $props();

  const TURN = 0.15;
  const DRAG = 0.008;
  const SNAP_MM = { in: 25.4 / 4, cm: 5 };

  let canvas: HTMLCanvasElement;
  let width = $state(600);
  let height = $state(420);
  let view = $state.raw<PackedView | null>(null);
  let missing = $state(false);
  let left = false;
  let seen = $state(0);
  let held: { x: number; y: number; thing: number; upright: boolean; by: [number, number, number] } | null =
    null;

  function paint(): void {
    view?.paint({
      board: ink('--board-pale'),
      boardDeep: ink('--board-deep'),
      ink: ink('--ink'),
      thing: ink('--board'),
      extra: ink('--hair2'),
      wrap: ink('--sheet'),
      fill: ink('--hair'),
      chosen: ink('--twine-light'),
      stop: ink('--stop'),
    });
    draw();
  }

  function draw(): void {
    if (!view || !width || !height) return;
    view.draw(width, height);
    seen = view.count;
  }

  onMount(async () => {
    try {
      const { PackedView: Made } = await import('../../lib/view3d/packed');
      if (left) return;
      view = new Made(canvas);
    } catch {
      missing = true;
      return;
    }
    paint();
  });
  onDestroy(() => {
    left = true;
    view?.leave();
  });

  $effect(() => onTheme(paint));
  $effect(() => {
    if (!view) return;
    if (arranging.shapes) view.know(arranging.shapes);
    draw();
  });
  $effect(() => {
    if (!view) return;
    if (arranging.layout) view.lay(arranging.layout, board);
    draw();
  });
  $effect(() => {
    view?.dress(wrapped, arranging.fill);
    draw();
  });
  $effect(() => {
    view?.show(step, apart);
    view?.choose(arranging.chosen, arranging.wrong);
    draw();
  });
  $effect(() => {
    if (width && height) draw();
  });

  export function look(side: Side): void {
    view?.look(side);
    draw();
  }

  function spot(event: PointerEvent): [number, number] {
    const box = canvas.getBoundingClientRect();
    return [
      ((event.clientX - box.left) / box.width) * 2 - 1,
      1 - ((event.clientY - box.top) / box.height) * 2,
    ];
  }

  function down(event: PointerEvent): void {
    const [x, y] = spot(event);
    const thing = view?.under(x, y) ?? -1;
    if (thing >= 0) arranging.chosen = thing;
    held = { x, y, thing: arranging.search.searching ? -1 : thing, upright: event.shiftKey, by: [0, 0, 0] };
    (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
  }

  function moved(event: PointerEvent): void {
    if (!held || !view) return;
    const [x, y] = spot(event);
    if (held.thing < 0) {
      view.turn((held.x - x) * DRAG * 200, (held.y - y) * DRAG * 120);
      held.x = x;
      held.y = y;
      draw();
      return;
    }
    const by = view.along([held.x, held.y], [x, y], held.upright);
    const snap = SNAP_MM[shop.units];
    held.by = [by.x, by.y, by.z].map((c) => Math.round(c / snap) * snap) as [number, number, number];
    view.drag(held.thing, by.set(...held.by));
    draw();
    void arranging.feel(held.thing, held.by);
  }

  async function up(): Promise<void> {
    const was = held;
    held = null;
    if (was && was.thing >= 0 && was.by.some((c) => c !== 0)) await arranging.move(was.thing, was.by);
    view?.show(step, apart);
    draw();
  }

  function pressed(event: KeyboardEvent): void {
    const snap = SNAP_MM[shop.units];
    const thing = arranging.chosen;
    const turns: Record<string, [number, number]> = {
      ArrowLeft: [-TURN, 0],
      ArrowRight: [TURN, 0],
      ArrowUp: [0, TURN],
      ArrowDown: [0, -TURN],
    };
    const moves: Record<string, [number, number, number]> = {
      ArrowLeft: [-snap, 0, 0],
      ArrowRight: [snap, 0, 0],
      ArrowUp: [0, snap, 0],
      ArrowDown: [0, -snap, 0],
      PageUp: [0, 0, snap],
      PageDown: [0, 0, -snap],
    };
    const turn = turns[event.key];
    const move = moves[event.key];
    if (event.shiftKey && turn) view?.turn(...turn);
    else if (thing >= 0 && move) void arranging.move(thing, move);
    else if (thing < 0 && turn) view?.turn(...turn);
    else if (event.key === 'Escape' && thing >= 0) arranging.chosen = -1;
    else return;
    event.preventDefault();
    event.stopPropagation();
    draw();
  }
</script>

<!-- Turned and moved by the pointer or by keys. -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<div
  class="packed border-hair bg-sheet relative h-[430px] cursor-grab touch-none overflow-hidden border"
  role="application"
  aria-label="The packed box. Arrow keys turn it; with a part selected they move it, and with Shift they turn the box. Page Up and Page Down lift and lower."
  tabindex="0"
  data-shown={seen}
  data-wrong={arranging.wrong.length}
  data-fill={(arranging.fill?.points_mm.length ?? 0) / 3}
  bind:clientWidth={width}
  bind:clientHeight={height}
  onkeydown={pressed}
  onpointerdown={down}
  onpointermove={moved}
  onpointerup={up}
  onpointercancel={() => (held = null)}
>
  <canvas class="absolute top-0 right-0 bottom-0 left-0 h-full w-full" bind:this={canvas} aria-hidden="true"
  ></canvas>
  {#if missing}<p
      class="text-soft absolute top-0 right-0 bottom-0 left-0 grid [place-items:center] px-6 py-0"
    >
      This browser draws nothing in three dimensions; the drawing beside says where things lie.
    </p>{/if}
</div>
