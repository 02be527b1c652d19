// Jobs by when they leave; what was handed over is on its way.
import type { JobRow } from '../../lib/api/client';

export interface Group {
  title: 'Late' | 'Today' | 'Tomorrow' | 'No ship date' | 'Later' | 'On the way';
  jobs: JobRow[];
}

/** A day as the shop writes it: 2026-03-02. */
export const dated = (day: Date): string =>
  [day.getFullYear(), day.getMonth() + 1, day.getDate()].map((one) => String(one).padStart(2, '0')).join('-');

/** The jobs in groups, in the order they come in; a group without jobs is left out. */
export function groups(jobs: readonly JobRow[], now: Date): Group[] {
  const today = dated(now);
  const tomorrow = dated(new Date(now.getFullYear(), now.getMonth(), now.getDate() + 1));
  const titleOf = ({ day, knots }: JobRow): Group['title'] => {
    if (knots.some((knot) => knot.name === 'sent' && knot.state === 'tied')) return 'On the way';
    if (!day) return 'No ship date';
    if (day < today) return 'Late';
    return day === today ? 'Today' : day === tomorrow ? 'Tomorrow' : 'Later';
  };
  const found = new Map<Group['title'], JobRow[]>();
  for (const job of jobs) {
    const title = titleOf(job);
    found.set(title, [...(found.get(title) ?? []), job]);
  }
  return [...found].map(([title, those]) => ({ title, jobs: those }));
}
