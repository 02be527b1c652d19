// Where a thing that is still missing is typed.
import { tick } from 'svelte';
import { router } from '../lib/router.svelte';
import type { JobDesk } from './job.svelte';

const PLACES: Record<string, string> = { 'postcode it goes to': 'to', 'postcode it leaves from': 'from' };

/** The id of the field under Measure; nothing where it is no single field. */
export function fieldOf(missing: string, names: readonly string[]): string {
  if (PLACES[missing]) return PLACES[missing];
  const measure = /^(length|width|height|thickness|diameter|weight)(?: of (.+))?$/.exec(missing);
  if (!measure) return '';
  const part = measure[2] ? names.indexOf(measure[2]) : 0;
  return part < 0 ? '' : `part-${part}-${measure[1] ?? ''}`;
}

/** Goes to the field and puts the cursor in it. */
export async function goTo(field: string, desk: JobDesk): Promise<void> {
  if (router.room.name === 'job' && router.room.station !== 'measure') router.go(`/jobs/${desk.id}/measure`);
  await tick();
  const at = document.getElementById(field);
  at?.focus();
  at?.scrollIntoView({ block: 'center' });
}
