// Starting a job and opening it.
import { calls } from '../../lib/api/client';
import { router } from '../../lib/router.svelte';

/** With the shop's habits on its list; from a kind of goods, with that kind's parts and steps too; from a priced line,
 * with its measures and the place. */
export async function startJob(title: string, kind: string | null = null, line = ''): Promise<void> {
  const view = await calls.begin({ title, kind, line });
  router.go(`/jobs/${view.id}/measure`);
}

/** A made-up reel to practise on: its page says what to do next. */
export async function practise(): Promise<void> {
  const view = await calls.beginPractice();
  router.go(`/jobs/${view.id}/measure`);
}
