// The shapes a part can have, and what is measured of each in the order of measuring: as the shop tells them.
import type { ShapeKind } from '../lib/api/client';
import { shop } from '../lib/shop.svelte';

export const shapes = (): ShapeKind[] => shop.view?.shapes ?? [];

export const asked = (kind: string): ShapeKind['asked'] =>
  shapes().find((one) => one.kind === kind)?.asked ?? [];

/** Short enough for a field in a row, where the first word of the label is not. */
export const SHORT: Record<string, string> = {
  outer_diameter: 'Outside',
  inner_diameter: 'Inside',
  diameter_a: 'Ø one end',
  diameter_b: 'Ø other end',
  unit: '1 in, 1 mm',
};
