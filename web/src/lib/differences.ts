import { written } from './written';

// What differs between two things that are kept as JSON, a line a value, for looking at an earlier form.
export interface Difference {
  path: string;
  then: string;
  now: string;
}

const empty = (value: unknown) =>
  value === undefined ||
  value === null ||
  value === '' ||
  (Array.isArray(value) && value.length === 0) ||
  (typeof value === 'object' && value !== null && Object.keys(value).length === 0);

const shown = (value: unknown): string =>
  empty(value) ? 'nothing' : typeof value === 'object' ? JSON.stringify(value) : written(value);

/** The path of a field: what it is of, then its name; what a part is measured as is the part's own. */
export const below = (path: string, name: string): string =>
  name === 'shape' ? path : [path, name.replaceAll('_', ' ')].filter(Boolean).join(', ');

/**
 * Each value that differs.
 *
 * @param bare The units that a measure typed without one gets when it is saved: with and without them it is the same.
 */
export function differences(then: unknown, now: unknown, bare: string[] = [], path = ''): Difference[] {
  if (empty(then) && empty(now)) return [];
  const both = [then, now];
  if (both.every((one) => typeof one === 'object' && one !== null)) {
    const [a, b] = both as Record<string, unknown>[];
    const lists = Array.isArray(then) && Array.isArray(now);
    return [...new Set([...Object.keys(a ?? {}), ...Object.keys(b ?? {})])].flatMap((name) =>
      differences(a?.[name], b?.[name], bare, lists ? `${path} ${Number(name) + 1}` : below(path, name)),
    );
  }
  const [was, is] = [shown(then), shown(now)];
  const same = was === is || bare.some((unit) => was === `${is} ${unit}` || is === `${was} ${unit}`);
  return same ? [] : [{ path, then: was, now: is }];
}
