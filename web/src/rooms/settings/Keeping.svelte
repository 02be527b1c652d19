<script lang="ts">
  // The whole shop exported and imported; the copies beside it, what each would change, and one put in the shop's place.
  import { attempt } from '../../lib/attempt';
  import { calls, type CopyRow, type CopyChanges } from '../../lib/api/client';
  import { dayInWords } from '../../lib/days';
  import { toast } from '../../lib/toast.svelte';

  interface Props {
    /** The shop is another now. */
    restored: () => void;
  }
  let { restored }: Props = $props();

  const WHY = {
    daily: 'daily copy',
    'before-restore': 'copy before a restore',
    'before-update': 'copy before an update',
    imported: 'imported shop',
  };

  let copies = $state.raw<CopyRow[]>([]);
  let looked = $state('');
  let changes = $state.raw<CopyChanges | null>(null);
  let busy = $state('');
  let trouble = $state('');
  let file: HTMLInputElement;
  const tell = (said: string) => {
    trouble = said;
  };

  async function load(): Promise<void> {
    await attempt(async () => (copies = await calls.copies()), tell);
  }
  void load();

  const when = (made: string) =>
    made.length === 10
      ? dayInWords(made)
      : `${dayInWords(made)}, ${new Date(made).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}`;
  const size = (bytes: number) => `${(bytes / 1e6).toFixed(1)} MB`;
  const called = (copy: CopyRow) => `${WHY[copy.why]} of ${when(copy.made)}`;

  async function takeIn(): Promise<void> {
    const chosen = file.files?.[0];
    if (!chosen) return;
    busy = 'Importing…';
    const row = await attempt(() => calls.importShop(chosen), tell);
    busy = '';
    file.value = '';
    if (!row) return;
    trouble = '';
    await load();
    await look(row);
  }
  async function look(copy: CopyRow): Promise<void> {
    changes = (await attempt(() => calls.copyChanges(copy.name), tell)) ?? null;
    looked = changes ? copy.name : '';
  }
  async function restore(copy: CopyRow): Promise<void> {
    busy = 'Restoring…';
    const kept = await attempt(() => calls.restoreCopy(copy.name), tell);
    busy = looked = '';
    if (!kept) return;
    trouble = '';
    await load();
    restored();
    toast.show(`The ${called(copy)} is the shop now.`, async () => {
      await calls.restoreCopy(kept.name);
      await load();
      restored();
    });
  }

  const few = (names: string[]) =>
    `${names.slice(0, 4).join(', ')}${names.length > 4 ? ` and ${names.length - 4} more` : ''}`;
  const told = $derived(
    changes
      ? (['jobs', 'tariffs', 'kinds'] as const).flatMap((what) => {
          const { back, gone, other } = changes?.[what] ?? { back: [], gone: [], other: [] };
          return [
            back.length ? `${what} that come back: ${few(back)}` : '',
            gone.length ? `${what} that are not in it and would be gone: ${few(gone)}` : '',
            other.length ? `${what} as they were then: ${few(other)}` : '',
          ].filter(Boolean);
        })
      : [],
  );
</script>

<div class="part mt-4.5">
  <h2 class="mb-1.5">Copies, export and import</h2>
  <p class="text-soft text-note max-w-[760px]">
    An export is the whole shop in one open file: another Fardo reads it back equal. An import lies beside the
    shop as a copy first. Putting a copy in the shop's place keeps the shop as it is, as a copy of its own.
  </p>
  <p class="mt-2 flex flex-wrap items-center gap-4">
    <a class="btn" href="/api/keeping/archive" download>Export the shop</a>
    <button type="button" class="btn" onclick={() => file.click()}>Import a shop</button>
    <input
      bind:this={file}
      id="shop-archive"
      type="file"
      accept=".zip"
      hidden
      aria-label="Exported shop to import"
      onchange={() => void takeIn()}
    />
    <span role="status" class="text-soft">{busy}</span>
  </p>
  <p class="text-stop text-note min-h-5" role="alert">{trouble}</p>
  <ul aria-label="Copies">
    {#each copies as copy (copy.name)}
      <li class="border-t-hair border-t py-1.5">
        <div class="flex flex-wrap items-center gap-x-4 gap-y-1">
          <span class="min-w-55"><b class="font-medium">{when(copy.made)}</b>, {WHY[copy.why]}</span>
          <span class="figure text-note">{size(copy.size)}</span>
          <button
            type="button"
            class="link"
            aria-expanded={looked === copy.name}
            onclick={() => (looked === copy.name ? (looked = '') : void look(copy))}
            >What it would change<span class="sr-only">: {called(copy)}</span></button
          >
          <button type="button" class="link" disabled={busy !== ''} onclick={() => void restore(copy)}
            >Restore<span class="sr-only"> the {called(copy)}</span></button
          >
        </div>
        {#if looked === copy.name && changes}
          <ul class="text-note py-1 pl-4">
            {#each told as line (line)}<li>{line}</li>{/each}
            {#if changes.settings}<li>settings as they were then</li>{/if}
            {#if changes.labels}<li class="text-stop">
                {changes.labels === 1 ? 'One label' : `${changes.labels} labels`} bought since would be gone here;
                the carrier has sold them.
              </li>{/if}
            {#if !told.length && !changes.settings && !changes.labels}<li>
                Nothing: it holds what the shop holds.
              </li>{/if}
          </ul>
        {/if}
      </li>
    {:else}
      <li class="text-soft">No copy yet: one is made each day the shop is served.</li>
    {/each}
  </ul>
</div>
