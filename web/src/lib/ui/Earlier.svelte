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
              <table class="text-note col-span-full border-collapse">
                <thead
                  ><tr
                    ><th class="text-soft py-0.5 pr-3 pl-0 text-left align-top font-normal wrap-anywhere"
                      >What</th
                    ><th class="text-soft py-0.5 pr-3 pl-0 text-left align-top font-normal wrap-anywhere"
                      >Then</th
                    ><th class="text-soft py-0.5 pr-3 pl-0 text-left align-top font-normal wrap-anywhere"
                      >Now</th
                    ></tr
                  ></thead
                >
                <tbody>
                  {#each differs.slice(0, MOST) as one (one.path)}
                    <tr
                      ><td class="py-0.5 pr-3 pl-0 align-top wrap-anywhere">{one.path}</td><td
                        class="py-0.5 pr-3 pl-0 align-top wrap-anywhere">{one.then}</td
                      ><td class="py-0.5 pr-3 pl-0 align-top wrap-anywhere">{one.now}</td></tr
                    >
                  {:else}
                    <tr
                      ><td class="py-0.5 pr-3 pl-0 align-top wrap-anywhere" colspan="3"
                        >It is as it is now.</td
                      ></tr
                    >
                  {/each}
                </tbody>
              </table>
              {#if differs.length > MOST}<p class="text-soft col-span-full">
                  and {differs.length - MOST} more
                </p>{/if}
            {/if}
          </li>
        {/each}
      </ol>
      <Dialog.Close class="btn" type="button">Close</Dialog.Close>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
