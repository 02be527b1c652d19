/** What stands for a value in a field or a sentence: nothing for what is no word, number or yes and no. */
export function written(value: unknown): string {
  return typeof value === 'string'
    ? value
    : typeof value === 'number' || typeof value === 'boolean'
      ? `${value}`
      : '';
}
