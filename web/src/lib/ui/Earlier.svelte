<script lang="ts">
  // The earlier revisions of something: what differs in each, and one of them restored as the newest.
  import { attempt } from '../attempt';
  import { type RevisionRow } from '../api/client';
  import Slip from './Slip.svelte';
  import DifferenceTable from './DifferenceTable.svelte';
  import { differences, type Difference } from '../differences';

  interface Props {
    /** What it is, for the heading. The first listed is the newest. */
    of: string;
    list: () => Promise<RevisionRow[]>;
    then: (revision: number) => Promise<unknown>;
    back: (revision: number) => Promise<void>;
    /** What differs between two, where that is told in words of its own. */
    differ?: (then: number, now: number) => Promise<Difference[]>;
  }
  let { of, list, then, back, differ }: Props = $props();

  let open = $state(false);
  let rows = $state.raw<RevisionRow[]>([]);
  let looked = $state(0);
  let differs = $state.raw<Difference[]>([]);
  let trouble = $state('');
  const tell = (said: string) => {
    trouble = said;
  };

  const when = (saved: string) =>
    new Date(saved).toLocaleString(undefined, {
      day: 'numeric',
      month: 'short',
      hour: 'numeric',
      minute: '2-digit',
      second: '2-digit',
    });

  async function load(): Promise<void> {
    looked = 0;
    differs = [];
    trouble = '';
    await attempt(async () => {
      rows = await list();
    }, tell);
  }

  async function look(revision: number): Promise<void> {
    await attempt(async () => {
      const newest = rows[0]?.revision ?? revision;
      differs = differ
        ? await differ(revision, newest)
        : differences(await then(revision), await then(newest));
      looked = revision;
    }, tell);
  }

  async function bring(revision: number): Promise<void> {
    await attempt(async () => {
      await back(revision);
      open = false;
    }, tell);
  }
</script>

<Slip
  bind:open
  opener="Earlier versions"
  opened={() => void load()}
  title="Earlier versions of {of}"
  about="Every version that was saved is kept. One that is restored becomes the newest."
>
  <p class="wrong text-stop" role="alert">{trouble}</p>
  <ol class="mx-0 mt-0 mb-3.5 max-h-[52vh] overflow-auto">
    {#each rows as row, n (row.revision)}
      <li
        class="border-b-hair grid grid-cols-[44px_minmax(0,1fr)_auto_auto] items-baseline gap-x-3.5 gap-y-1 border-b px-0 py-1.5"
      >
        <span class="font-semibold">{row.revision}</span>
        <span>{when(row.saved_at)}</span>
        {#if n === 0}
          <span class="text-soft">as it is now</span>
        {:else}
          <button
            class="link"
            aria-expanded={looked === row.revision}
            aria-label="What differs in version {row.revision}"
            onclick={() => (looked === row.revision ? (looked = 0) : void look(row.revision))}
            >What differs</button
          >
          <button
            class="link"
            aria-label="Restore version {row.revision}"
            onclick={() => void bring(row.revision)}>Restore</button
          >
        {/if}
        {#if looked === row.revision}
          <div class="col-span-full"><DifferenceTable {differs} then="Then" now="Now" /></div>
        {/if}
      </li>
    {/each}
  </ol>
</Slip>
