<script lang="ts">
  // The earlier revisions of something: what differs in each, and one of them brought back as the newest.
  import { attempt } from '../attempt';
  import { Dialog } from 'bits-ui';
  import { type RevisionRow } from '../api/client';
  import { differences, type Difference } from '../differences';

  interface Props {
    /** What it is, for the heading. The first listed is the newest. */
    of: string;
    list: () => Promise<RevisionRow[]>;
    then: (revision: number) => Promise<unknown>;
    back: (revision: number) => Promise<void>;
  }
  let { of, list, then, back }: Props = $props();

  const MOST = 40; // differences told

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
      differs = differences(await then(revision), await then(rows[0]?.revision ?? revision));
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

<Dialog.Root bind:open onOpenChange={(shown) => void (shown && load())}>
  <Dialog.Trigger class="link">Earlier versions</Dialog.Trigger>
  <Dialog.Portal>
    <Dialog.Overlay class="keys-veil" />
    <Dialog.Content class="keys-slip">
      <Dialog.Title class="keys-title">Earlier versions of {of}</Dialog.Title>
      <Dialog.Description class="keys-about"
        >Every version that was saved is kept. One that is brought back becomes the newest.</Dialog.Description
      >
      <p class="wrong" role="alert">{trouble}</p>
      <ol>
        {#each rows as row, n (row.revision)}
          <li>
            <span class="number">{row.revision}</span>
            <span>{when(row.saved_at)}</span>
            {#if n === 0}
              <span class="soft">as it is now</span>
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
              <table>
                <thead><tr><th>What</th><th>Then</th><th>Now</th></tr></thead>
                <tbody>
                  {#each differs.slice(0, MOST) as one (one.path)}
                    <tr><td>{one.path}</td><td>{one.then}</td><td>{one.now}</td></tr>
                  {:else}
                    <tr><td colspan="3">It is as it is now.</td></tr>
                  {/each}
                </tbody>
              </table>
              {#if differs.length > MOST}<p class="soft">and {differs.length - MOST} more</p>{/if}
            {/if}
          </li>
        {/each}
      </ol>
      <Dialog.Close class="btn" type="button">Close</Dialog.Close>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>

<style>
  ol {
    max-height: 52vh;
    overflow: auto;
    margin: 0 0 14px;
  }
  li {
    display: grid;
    grid-template-columns: 44px minmax(0, 1fr) auto auto;
    gap: 4px 14px;
    align-items: baseline;
    padding: 6px 0;
    border-bottom: 1px solid var(--hair);
  }
  .number {
    font-weight: 600;
  }
  .soft {
    color: var(--soft);
  }
  table,
  li > p {
    grid-column: 1 / -1;
  }
  table {
    font-size: 14px;
    border-collapse: collapse;
  }
  th {
    text-align: left;
    color: var(--soft);
    font-weight: 400;
  }
  td,
  th {
    padding: 2px 12px 2px 0;
    vertical-align: top;
    overflow-wrap: anywhere;
  }
  .wrong {
    color: var(--stop);
  }
</style>
