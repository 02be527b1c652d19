// Fields are text: a number from a file shows with its unit, and what is not set as nothing.

export function text(value: unknown, unit = 'mm'): string {
  return typeof value === 'number' ? `${value} ${unit}` : String(value ?? '');
}

/** Three sides as one text. */
export function triple(value: unknown): string {
  return Array.isArray(value) ? value.map((side) => text(side)).join(' x ') : text(value);
}
