import { written } from '../../lib/written';
import type { ShopFile } from '../../lib/api/client';

// Fields are text: a number from a file shows with its unit, and what is not set as nothing.

export function text(value: unknown, unit = 'mm'): string {
  return typeof value === 'number' ? `${value} ${unit}` : written(value);
}

/** What a shop measures in, and what it prints on. */
export const UNITS = [
  ['in', 'inches, pounds and ounces'],
  ['cm', 'centimetres and kilograms'],
] as const;
export const PAPERS = [
  ['letter', 'Letter'],
  ['a4', 'A4'],
] as const;

/** A number as it is typed; an empty field is none. What is no number is refused with the field's name. */
export function number(typed: string): number | null {
  return typed.trim() === '' ? null : (typed as unknown as number);
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
