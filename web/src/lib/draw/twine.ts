// The line a piece of twine takes between its ends: it sags a little between knots, never quite evenly.

/** Where a knot sits: x in pixels, y below the line's resting height. */
export interface Place {
  x: number;
  y: number;
}

const SAG = [3, -2, 4, -1, 2, -3, 1];

export function places(count: number, left: number, right: number, rest: number): Place[] {
  const step = count > 1 ? (right - left) / (count - 1) : 0;
  return Array.from({ length: count }, (_, n) => ({
    x: left + n * step,
    y: rest + (SAG[n % SAG.length] ?? 0),
  }));
}

/** A smooth path through the knots from `start` to `end`; `drop` lets the last piece hang over before it falls. */
export function cord(start: Place, knots: Place[], end: Place, drop = false): string {
  const points = [start, ...knots, end];
  let path = `M${start.x} ${start.y}`;
  for (let n = 1; n < points.length; n += 1) {
    const [a, b] = [points[n - 1] as Place, points[n] as Place];
    const third = (b.x - a.x) / 3;
    if (drop && n === points.length - 1) {
      path += ` C${b.x - third} ${a.y + 14} ${b.x} ${a.y - 12} ${b.x} ${b.y}`;
      continue;
    }
    path += ` C${a.x + third} ${a.y + 7} ${b.x - third} ${b.y + 7} ${b.x} ${b.y}`;
  }
  return path;
}
