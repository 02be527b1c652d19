// Fields are text: a number from a file shows with its unit, and what is not set as nothing.

export function text(value: unknown, unit = 'mm'): string {
  return typeof value === 'number' ? `${value} ${unit}` : String(value ?? '');
}
