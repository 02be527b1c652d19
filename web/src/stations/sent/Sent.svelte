<script lang="ts">
  // The end of a job: the parcel closed and priced again, its label, and where it was handed over.
  import { toast } from '../../lib/toast.svelte';
  import { attempt } from '../../lib/attempt';
  import { calls, type TrackingSaid } from '../../lib/api/client';
  import { follow } from '../../lib/router.svelte';
  import Faults from '../../lib/ui/Faults.svelte';
  import type { JobDesk } from '../../job/job.svelte';
  import type { Sending } from '../../lib/sending.svelte';
  import AgainstPlan from './AgainstPlan.svelte';
  import ClosedFields from './ClosedFields.svelte';
  import HandOver from './HandOver.svelte';
  import Prints from './Prints.svelte';
  import Recipient from './Recipient.svelte';
  import TrackingNumber from './TrackingNumber.svelte';

  interface Props {
    desk: JobDesk;
    sending: Sending;
    pack: (event: MouseEvent) => void;
  }
  let { desk, sending, pack }: Props = $props();

  const label = $derived(desk.label.view);
  const bought = $derived(label?.state === 'sold' ? label : null);
  const taken = $derived(sending.view?.taken ?? []);
  let where = $state.raw<TrackingSaid | null>(null);

  const LABELS: Record<string, string> = {
    'closed.weight': 'Weight by the scale',
    'closed.sides': 'Length, width and height by the tape',
    'handed_over.expected': 'Expected on',
    'sending.number': 'Tracking number',
  };
  const labelOf = (field: string) =>
    Object.entries(LABELS).find(([path]) => field.startsWith(path))?.[1] ?? 'Not saved';

  const settle = async () => (await desk.saver.settle()) && (await sending.settle());

  /** As it is said here; as the carrier said it where that is no time. */
  const when = (at: string) =>
    Number.isNaN(Date.parse(at))
      ? at
      : new Date(at).toLocaleString('en-GB', {
          weekday: 'short',
          day: 'numeric',
          month: 'short',
          hour: '2-digit',
          minute: '2-digit',
        });

  async function track(): Promise<void> {
    where =
      (await attempt(
        () => calls.tracking(desk.id),
        (said) => toast.show(said),
      )) ?? null;
  }
</script>

<section aria-label="Sent" class="grid gap-4">
  {#if sending.typed}
    {#if sending.differs}
      <div class="bg-amber-pale border-l-amber-mark border-l-4 px-4 py-2.5" role="alert">
        <p>This was changed in another window meanwhile.</p>
        <p class="mt-1.5 flex gap-4">
          <button class="btn" onclick={() => void sending.choose(true)}>Keep what is typed here</button>
          <button class="btn" onclick={() => void sending.choose(false)}>Show theirs</button>
        </p>
      </div>
    {/if}
    <section class="sheet px-4 pt-2.5 pb-3.5" aria-label="Closed parcel">
      <h2>Weigh and measure the closed parcel</h2>
      <ClosedFields {sending} />
      <Faults
        id="sending-faults"
        tight
        faults={sending.trouble
          ? [{ field: sending.field, label: labelOf(sending.field), sentence: sending.trouble }]
          : []}
        hint={sending.half ? 'All three sides are saved together.' : ''}
      />
      <AgainstPlan {sending} />
      {#if taken.length}
        <p class="text-soft mt-1">
          Taken off the stock: {taken.join(', ')}
        </p>
      {/if}
    </section>

    <Recipient {desk} />

    <section class="sheet px-4 pt-2.5 pb-3.5" aria-label="Label and papers">
      <h2>Label and papers</h2>
      {#if bought}
        <p>
          <b class="figure">{bought.tracking}</b>, {bought.carrier}
          {bought.service}, <span class="figure">{bought.amount} {bought.currency}</span>
          <button class="link ml-3" onclick={() => void track()}>Track it</button>
        </p>
        {#if where}
          <div role="status">
            <p class="mt-1.5"><b>{where.state}</b></p>
            <ol class="mt-1">
              {#each [...(where.events ?? [])].reverse() as event, n (n)}
                <li class="border-t-hair flex gap-4 border-t py-1">
                  <span class="text-soft figure w-40 flex-none">{when(event.at)}</span>{event.what}
                </li>
              {/each}
            </ol>
          </div>
        {/if}
      {:else}
        {#if label && (label.state === 'asking' || label.state === 'voiding')}<p role="status">
            {label.says}
          </p>{/if}
        <div class="flex flex-wrap items-end gap-4">
          <div class="w-72">
            <TrackingNumber {sending} />
          </div>
          <a class="link mb-2" href="/jobs/{desk.id}/price" onclick={follow}>Buy a label at Price</a>
        </div>
      {/if}
      <Prints id={desk.id} {settle} />
    </section>

    <section class="sheet px-4 pt-2.5 pb-3.5" aria-label="Hand over">
      <h2>Hand over</h2>
      <HandOver {sending} />
    </section>
    {#if sending.view?.knots[5]?.state !== 'tied'}
      <p class="text-soft">
        Pack: {sending.view?.knots[5]?.says}.
        <a class="link" href="/jobs/{desk.id}/pack" onclick={pack}>Pack</a>
      </p>
    {/if}
  {:else}
    <p class="text-soft">Loading…</p>
  {/if}
</section>
