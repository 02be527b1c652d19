<script lang="ts">
  // The inside of the box with the thing, its gap and the extras where they lie, seen from above one corner.
  import type { Layout } from '../api/client';

  type Placed = Pick<Layout['parts'][number], 'name' | 'at_mm' | 'size_mm'>;

  interface Props {
    layout: { inside_mm: Layout['inside_mm']; parts: Placed[]; extras: Placed[] };
    /** Length, width and height of the inside, in words. */
    sides: readonly string[];
  }
  let { layout, sides }: Props = $props();

  type Triple = readonly [number, number, number];
  const WIDTH = 420;
  const HEIGHT = 330;
  const COS = Math.cos(Math.PI / 7);
  const SIN = Math.sin(Math.PI / 7);

  const flat = (p: Triple): [number, number] => [(p[0] - p[1]) * COS, (p[0] + p[1]) * SIN - p[2]];

  const frame = $derived.by(() => {
    const [l, w, h] = layout.inside_mm;
    const corners = [0, 1, 2, 3, 4, 5, 6, 7].map((n) => flat([n & 1 ? l : 0, n & 2 ? w : 0, n & 4 ? h : 0]));
    const xs = corners.map((c) => c[0]);
    const ys = corners.map((c) => c[1]);
    const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    const scale = Math.min((WIDTH - 190) / (right - left), (HEIGHT - 56) / (bottom - top));
    return {
      scale,
      x: (WIDTH - (right - left) * scale) / 2 - left * scale,
      y: (HEIGHT - (bottom - top) * scale) / 2 - top * scale,
    };
  });

  function at(p: Triple): string {
    const [x, y] = flat(p);
    return `${(x * frame.scale + frame.x).toFixed(1)},${(y * frame.scale + frame.y).toFixed(1)}`;
  }

  /** The three faces of a block that are seen: top, front left, front right. */
  function faces(corner: Triple, size: Triple): { top: string; left: string; right: string } {
    const [x, y, z] = corner;
    const [a, b, c] = [x + size[0], y + size[1], z + size[2]];
    return {
      top: [at([x, y, c]), at([a, y, c]), at([a, b, c]), at([x, b, c])].join(' '),
      left: [at([x, b, z]), at([a, b, z]), at([a, b, c]), at([x, b, c])].join(' '),
      right: [at([a, y, z]), at([a, b, z]), at([a, b, c]), at([a, y, c])].join(' '),
    };
  }

  /** The three sides in words, each beside its edge. */
  const figures = $derived.by(() => {
    const [l, w, h] = layout.inside_mm;
    const beside = (p: Triple, dx: number, dy: number, text: string, anchor: 'start' | 'end') => {
      const [x, y] = flat(p);
      return { x: x * frame.scale + frame.x + dx, y: y * frame.scale + frame.y + dy, text, anchor };
    };
    return [
      beside([l / 2, w, 0], -8, 18, sides[0] ?? '', 'end'),
      beside([l, w / 2, 0], 8, 18, sides[1] ?? '', 'start'),
      beside([l, 0, h / 2], 7, 5, sides[2] ?? '', 'start'),
    ];
  });

  type Block = Placed & { extra: boolean };

  /** Whether one lies wholly before another along some side, away from the eye: then it is drawn first. */
  const behind = (one: Block, other: Block) =>
    [0, 1, 2].some(
      (axis) => (one.at_mm[axis] ?? 0) + (one.size_mm[axis] ?? 0) <= (other.at_mm[axis] ?? 0) + 0.01,
    );

  /** Far and low ones first, so that nearer ones are drawn over them. */
  const blocks = $derived.by(() => {
    let left: Block[] = [
      ...layout.parts.map((part) => ({ ...part, extra: false })),
      ...layout.extras.map((extra) => ({ ...extra, extra: true })),
    ];
    const drawn: Block[] = [];
    while (left.length) {
      const all = left;
      const next =
        all.find((one) => all.every((other) => other === one || behind(one, other) || !behind(other, one))) ??
        all[0];
      if (!next) break;
      drawn.push(next);
      left = all.filter((one) => one !== next);
    }
    return drawn;
  });

  const walls = $derived.by(() => {
    const [l, w, h] = layout.inside_mm;
    return {
      floor: [at([0, 0, 0]), at([l, 0, 0]), at([l, w, 0]), at([0, w, 0])].join(' '),
      back: [at([0, 0, 0]), at([l, 0, 0]), at([l, 0, h]), at([0, 0, h])].join(' '),
      side: [at([0, 0, 0]), at([0, w, 0]), at([0, w, h]), at([0, 0, h])].join(' '),
      rim: [at([l, 0, 0]), at([l, w, 0]), at([0, w, 0]), at([0, w, h]), at([l, w, h]), at([l, 0, h])],
    };
  });
</script>

<svg viewBox="0 0 {WIDTH} {HEIGHT}" role="img" aria-label="Where the thing and its extras lie in the box">
  <polygon points={walls.floor} class="floor" />
  <polygon points={walls.back} class="wall" />
  <polygon points={walls.side} class="wall" />
  {#each blocks as block, n (n)}
    {@const seen = faces(block.at_mm, block.size_mm)}
    <g class:extra={block.extra}>
      <title>{block.name}</title>
      <polygon points={seen.left} class="left" />
      <polygon points={seen.right} class="right" />
      <polygon points={seen.top} class="top" />
    </g>
  {/each}
  <polyline points={[walls.rim[0], walls.rim[1], walls.rim[2]].join(' ')} class="edge" />
  <polyline points={[walls.rim[3], walls.rim[4], walls.rim[5]].join(' ')} class="edge near" />
  <polyline points={[walls.rim[1], walls.rim[4]].join(' ')} class="edge near" />
  {#each figures as figure, n (n)}
    <text x={figure.x} y={figure.y} text-anchor={figure.anchor}>{figure.text}</text>
  {/each}
</svg>

<style>
  text {
    font-family: var(--font-mono);
    font-weight: 600;
    font-size: var(--text-head);
    letter-spacing: -0.04em;
    fill: var(--ink);
  }
  svg {
    width: 100%;
    height: auto;
    max-height: 330px;
  }
  polygon {
    stroke-linejoin: round;
  }
  .floor {
    fill: var(--board-pale);
    stroke: var(--board-deep);
  }
  .wall {
    fill: color-mix(in srgb, var(--board-pale) 55%, var(--sheet));
    stroke: var(--board-deep);
  }
  .edge {
    fill: none;
    stroke: var(--board-deep);
    stroke-width: 1.4;
  }
  .near {
    stroke-dasharray: 5 4;
  }
  .top {
    fill: color-mix(in srgb, var(--ink) 18%, var(--sheet));
    stroke: var(--ink);
  }
  .left {
    fill: color-mix(in srgb, var(--ink) 32%, var(--sheet));
    stroke: var(--ink);
  }
  .right {
    fill: color-mix(in srgb, var(--ink) 46%, var(--sheet));
    stroke: var(--ink);
  }
  .extra .top {
    fill: color-mix(in srgb, var(--twine) 25%, var(--sheet));
    stroke: var(--twine);
  }
  .extra .left {
    fill: color-mix(in srgb, var(--twine) 42%, var(--sheet));
    stroke: var(--twine);
  }
  .extra .right {
    fill: color-mix(in srgb, var(--twine) 58%, var(--sheet));
    stroke: var(--twine);
  }
</style>
