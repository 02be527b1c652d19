<script lang="ts">
  // What differs between this window's job and the one another window saved.
  import { attempt } from '../lib/attempt';
  import { calls } from '../lib/api/client';
  import Slip from '../lib/ui/Slip.svelte';
  import DifferenceTable from '../lib/ui/DifferenceTable.svelte';
  import { differences, type Difference } from '../lib/differences';
  import type { JobDesk } from './job.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  let open = $state(false);
  let found = $state.raw<Difference[]>([]);
  let trouble = $state('');

  async function look(): Promise<void> {
    trouble = '';
    await attempt(
      async () => {
        found = differences((await calls.job(desk.id)).job, desk.job, desk.bare);
      },
      (said) => (trouble = said),
    );
  }
</script>

<Slip
  bind:open
  opener="What differs"
  look="btn"
  opened={() => void look()}
  title="This window and the other"
  about="What the two versions of this job do not share."
>
  {#if trouble}<p class="text-stop" role="alert">{trouble}</p>{/if}
  <div class="my-3.5 max-h-[52vh] overflow-auto">
    <DifferenceTable differs={found} then="The other" now="This window" />
  </div>
</Slip>
