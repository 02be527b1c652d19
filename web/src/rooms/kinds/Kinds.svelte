<script lang="ts">
  // Kinds of goods: looked at, copied and changed into the shop's own; what they say is shown at the bench.
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

  async function bringBack(code: string, wanted: number): Promise<void> {
    const before = revision;
    await calls.kindBack(code, wanted);
    await load(code);
    toast.show(`Version ${wanted} is back.`, async () => {
      await calls.kindBack(code, before);
      await load(code);
    });
  }

  async function putAway(): Promise<void> {
    if (!kind) return;
    const { code, title } = kind;
    await attempt(async () => {
      await calls.putAwayKind(code);
      kind = null;
      await load();
      toast.show(`${title} is removed.`, async () => {
        await calls.bringBackKind(code);
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

<svelte:head><title>Kinds of goods · Fardo</title></svelte:head>

<section class="room">
  <div class="head">
    <h1>Kinds of goods</h1>
    <button class="btn" onclick={() => file.click()}>Import kind</button>
    <input
      bind:this={file}
      type="file"
      accept=".json,application/json"
      class="sr-only"
      tabindex="-1"
      aria-label="Kind file to import"
      onchange={take}
    />
  </div>
  {#if trouble}<p class="trouble" role="alert">{trouble}</p>{/if}
  <div class="both">
    <ul aria-label="All kinds">
      {#each rows as row (row.code)}
        <li>
          <button aria-pressed={row.code === kind?.code} onclick={() => start(() => open(row.code), tell)}
            >{row.title}{#if row.own}<small>ours</small>{/if}</button
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
        <div class="deeds">
          <button class="btn btn-main" disabled={!changed}>{revision ? 'Keep' : 'Save as our own'}</button>
          <button type="button" class="btn" onclick={copy}>Copy</button>
          <button type="button" class="btn" onclick={save}>Export kind</button>
          {#if revision}
            {@const code = kind.code}
            <Earlier
              of={kind.title}
              list={() => calls.kindRevisions(code)}
              then={(one) => calls.kindThen(code, one)}
              back={(one) => bringBack(code, one)}
            />
            <button type="button" class="link" onclick={putAway}>Remove ours</button>
          {/if}
        </div>
      </form>
    {/if}
  </div>
</section>

<style>
  .room {
    max-width: 1232px;
    margin: 0 auto;
    padding: 22px 24px 80px;
  }
  .head {
    display: flex;
    justify-content: space-between;
    align-items: center;
    margin-bottom: 14px;
  }
  .both {
    display: grid;
    grid-template-columns: 270px minmax(0, 1fr);
    gap: 26px;
    align-items: start;
  }
  li button {
    display: flex;
    justify-content: space-between;
    width: 100%;
    padding: 6px 10px;
    text-align: left;
    border-left: 3px solid transparent;
    border-bottom: 1px solid var(--hair);
  }
  li button[aria-pressed='true'] {
    border-left-color: var(--twine);
    background: var(--twine-pale);
    font-weight: 600;
  }
  small {
    color: var(--soft);
  }
  li button[aria-pressed='true'] small {
    color: var(--ink);
  }
  .deeds {
    position: sticky;
    bottom: 0;
    display: flex;
    align-items: center;
    gap: 12px;
    padding: 12px 0;
    background: var(--paper);
    border-top: 1px solid var(--hair2);
  }
  .trouble {
    padding: 10px 14px;
    margin-bottom: 12px;
    background: var(--stop-pale);
    border-left: 4px solid var(--stop);
  }
  @media (max-width: 860px) {
    .both {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
