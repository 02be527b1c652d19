// Starting a job and opening it.
import { calls, type JobFile } from '../../lib/api/client';
import { router } from '../../lib/router.svelte';

export async function startJob(title: string): Promise<void> {
  const job: JobFile = { format: 'fardo-job/1', title, parcels_at_most: 1, school: 'exact' };
  const view = await calls.addJob(job);
  router.go(`/jobs/${view.id}/measure`);
}
