// Two changes of one job brought together, field by field: only a field that both changed is in question.
import type { JobFile } from '../lib/api/client';
import { below, differences } from '../lib/differences';

export interface Merged {
  job: JobFile;
  /** The fields that both changed, and not to the same. */
  clashes: string[];
}

/** Whose change is kept of a field that both changed. */
export type Wins = 'mine' | 'theirs';

/** What makes sense only as a whole. */
const WHOLE = new Set(['arrangement', 'box', 'points', 'holes', 'members', 'of', 'lengths', 'photos']);

type Fields = Record<string, unknown>;
const isFields = (one: unknown): one is Fields =>
  typeof one === 'object' && one !== null && !Array.isArray(one);

/**
 * Brings together what two windows made of one job.
 *
 * @param then The job that both began from.
 * @param mine What this window made of it.
 * @param theirs What the other did.
 * @param bare The units that a measure typed without one gets when it is saved.
 * @param wins Whose change of a field that both changed is kept.
 */
export function merge(
  then: JobFile,
  mine: JobFile,
  theirs: JobFile,
  bare: string[],
  wins: Wins = 'mine',
): Merged {
  const clashes: string[] = [];
  const same = (a: unknown, b: unknown) => differences(a, b, bare).length === 0;
  const join = (was: unknown, a: unknown, b: unknown, path: string, name: string): unknown => {
    if (same(a, b) || same(b, was)) return a;
    if (same(a, was)) return b;
    const three = [was, a, b];
    if (!WHOLE.has(name)) {
      if (three.every(isFields) && new Set(three.map((one) => one.kind)).size === 1)
        return fields(three, path);
      if (three.every((one) => Array.isArray(one)) && new Set(three.map((one) => one.length)).size === 1)
        return (a as unknown[]).map((one, n) =>
          join((was as unknown[])[n], one, (b as unknown[])[n], `${path} ${n + 1}`, ''),
        );
    }
    clashes.push(path);
    return wins === 'mine' ? a : b;
  };
  const fields = ([was = {}, a = {}, b = {}]: Fields[], path: string): Fields => {
    const names = new Set([...Object.keys(was), ...Object.keys(a), ...Object.keys(b)]);
    return Object.fromEntries(
      [...names].map((name) => [name, join(was[name], a[name], b[name], below(path, name), name)]),
    );
  };
  return { job: fields([then, mine, theirs] as Fields[], '') as unknown as JobFile, clashes };
}
