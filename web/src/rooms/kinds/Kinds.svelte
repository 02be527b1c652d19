<script lang="ts">
  // Kinds of goods: looked at, copied and changed into the shop's own; what they say is shown at the bench.
  import RoomHead from '../../lib/ui/RoomHead.svelte';
  import { attempt, start } from '../../lib/attempt';
  import { calls, Refusal, sentence, type KindFile, type KindRow } from '../../lib/api/client';
  import { toast } from '../../lib/toast.svelte';
  import Earlier from '../../lib/ui/Earlier.svelte';
  import KindSlip from './KindSlip.svelte';

  let rows = $state<KindRow[]>([]);
  let kind = $state<KindFile | null>(null);
  let revision = $state(0);
  let trouble = $state('');
  const tell = (said: string) => {
    trouble = said;
  };
  let changed = $state(false);
  let file: HTMLInputElement;

  async function load(code?: string): Promise<void> {
    await attempt(async () => {
      rows = await calls.kinds();
      const wanted = code ?? kind?.code ?? rows[0]?.code;
      if (wanted) await open(wanted);
    }, tell);
  }
  void load();

  async function open(code: string): Promise<void> {
    const view = await calls.kind(code);
    kind = view.kind;
    revision = view.revision;
    changed = false;
    trouble = '';
  }

  async function keep(): Promise<void> {
    if (!kind) return;
    try {
      const view = await calls.changeKind({ revision, kind: $state.snapshot(kind) });
      toast.show(`${view.kind.title} is kept as the shop's own.`);
      await load(view.kind.code);
    } catch (fault) {
      trouble = sentence(fault);
      if (fault instanceof Refusal && fault.newestRevision !== null) {
        revision = fault.newestRevision;
        trouble = 'It was changed in another window. Keep it again to put yours in its place.';
      }
    }
  }

  function copy(): void {
    if (!kind) return;
    const taken = new Set(rows.map((row) => row.code));
    let n = 2;
    while (taken.has(`${kind.code.slice(0, 34)}-${n}`)) n += 1;
    kind = {
      ...$state.snapshot(kind),
      code: `${kind.code.slice(0, 34)}-${n}`,
      title: `${kind.title}, copy`,
    };
    revision = 0;
    changed = true;
  }

  async function restore(code: string, wanted: number): Promise<void> {
    const before = revision;
    await calls.kindBack(code, wanted);
    await load(code);
    toast.show(`Version ${wanted} is back.`, async () => {
      await calls.kindBack(code, before);
      await load(code);
    });
  }

  async function archive(): Promise<void> {
    if (!kind) return;
    const { code, title } = kind;
    await attempt(async () => {
      await calls.archiveKind(code);
      kind = null;
      await load();
      toast.show(`${title} is removed.`, async () => {
        await calls.restoreKind(code);
        await load(code);
      });
    }, tell);
  }

  function save(): void {
    if (!kind) return;
    const link = document.createElement('a');
    const text = JSON.stringify($state.snapshot(kind), null, 1);
    link.href = URL.createObjectURL(new Blob([text], { type: 'application/json' }));
    link.download = `${kind.code}.kind.json`;
    link.click();
    URL.revokeObjectURL(link.href);
  }

  async function take(): Promise<void> {
    const chosen = file.files?.[0];
    file.value = '';
    if (!chosen) return;
    try {
      const read = JSON.parse(await chosen.text()) as KindFile;
      const now = rows.find((row) => row.code === read.code)?.revision ?? 0;
      const view = await calls.changeKind({ revision: now, kind: read });
      await load(view.kind.code);
    } catch (fault) {
      trouble = `${chosen.name}: ${sentence(fault)}`;
    }
  }
</script>

<section class="room mx-auto my-0 max-w-[1232px] px-6 pt-5.5 pb-20">
  <RoomHead title="Kinds of goods">
    <button class="btn ml-auto" onclick={() => file.click()}>Import kind</button>
    <input
      bind:this={file}
      type="file"
      accept=".json,application/json"
      class="sr-only"
      tabindex="-1"
      aria-label="Kind file to import"
      onchange={take}
    />
  </RoomHead>
  {#if trouble}<p class="trouble bg-stop-pale border-l-stop mb-3 border-l-4 px-3.5 py-2.5" role="alert">
      {trouble}
    </p>{/if}
  <div
    class="both max-narrow:grid-cols-[minmax(0,1fr)] grid grid-cols-[270px_minmax(0,1fr)] items-start gap-6.5"
  >
    <ul aria-label="All kinds">
      {#each rows as row (row.code)}
        <li>
          <button
            class="border-b-hair aria-pressed:border-l-twine aria-pressed:bg-twine-pale flex w-full justify-between border-b border-l-3 border-l-transparent px-2.5 py-1.5 text-left aria-pressed:font-semibold"
            aria-pressed={row.code === kind?.code}
            onclick={() => start(() => open(row.code), tell)}
            >{row.title}{#if row.own}<small class="text-soft">ours</small>{/if}</button
          >
        </li>
      {/each}
    </ul>
    {#if kind}
      <form
        onsubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <KindSlip
          bind:kind={() => kind as KindFile, (one) => (kind = one)}
          touched={() => (changed = true)}
        />
        <div class="bg-paper border-t-hair2 sticky bottom-0 flex items-center gap-3 border-t px-0 py-3">
          <button class="btn btn-main" disabled={!changed}>{revision ? 'Keep' : 'Save as our own'}</button>
          <button type="button" class="btn" onclick={copy}>Copy</button>
          <button type="button" class="btn" onclick={save}>Export kind</button>
          {#if revision}
            {@const code = kind.code}
            <Earlier
              of={kind.title}
              list={() => calls.kindRevisions(code)}
              then={(one) => calls.kindThen(code, one)}
              back={(one) => restore(code, one)}
            />
            <button type="button" class="link" onclick={archive}>Remove ours</button>
          {/if}
        </div>
      </form>
    {/if}
  </div>
</section>

<style>
  li button[aria-pressed='true'] small {
    color: var(--ink);
  }
</style>
