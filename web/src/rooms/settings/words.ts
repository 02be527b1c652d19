import { written } from '../../lib/written';
import type { ShopFile } from '../../lib/api/client';

// Fields are text: a number from a file shows with its unit, and what is not set as nothing.

export function text(value: unknown, unit = 'mm'): string {
  return typeof value === 'number' ? `${value} ${unit}` : written(value);
}

/** Three sides as one text. */
export function triple(value: unknown): string {
  return Array.isArray(value) ? value.map((side) => text(side)).join(' x ') : text(value);
}

/** What every list of the settings is given: the draft, what is wrong with a field of it, and word of a change. */
export interface ListProps {
  d: ShopFile;
  wrong: (name: string) => string;
  touched: () => void;
}
