<script lang="ts">
  // A carrier's tariff, changed on the screen: a service at a time, its charges in order, its tables cell by cell. What is
  // typed is looked over at once; only what can be priced by is kept, whole, as a new version.
  import { written } from '../../lib/written';
  import { onDestroy } from 'svelte';
  import { attempt, start } from '../../lib/attempt';
  import { calls, type TariffRow } from '../../lib/api/client';
  import { toast } from '../../lib/toast.svelte';
  import { TariffDraft } from './draft.svelte';
  import Entry from './Entry.svelte';
  import { Schema, type Json, type JsonObject } from './schema';

  interface Props {
    carrier: string;
    kept: (row: TariffRow) => void;
    close: () => void;
  }
  let { carrier, kept, close }: Props = $props();

  let draft = $state.raw<TariffDraft | null>(null);
  let schema = $state.raw<Schema | null>(null);
  let trouble = $state('');
  const tell = (said: string) => {
    trouble = said;
  };
  let at = $state(0);

  async function begin(): Promise<void> {
    await attempt(async () => {
      const [form, opened] = await Promise.all([calls.tariffForm(), TariffDraft.open(carrier)]);
      schema = new Schema(form);
      draft = opened;
    }, tell);
  }
  void begin();
  onDestroy(() => draft?.leave());

  const services = $derived((draft?.file.services ?? []) as JsonObject[]);
  const serviceNode = $derived(schema?.root.properties?.services?.items ?? {});
  const wrong = (path: string) => draft?.field === path;
  /** The service that the problem is in. */
  const faulty = $derived(Number(/^services\[(\d+)\]/.exec(draft?.field ?? '')?.[1] ?? -1));

  function addService(): void {
    if (!schema || !draft) return;
    const fresh = schema.fresh(serviceNode) as JsonObject;
    const like = services[at];
    services.push({
      ...fresh,
      ...(like ? ($state.snapshot(like as unknown) as JsonObject) : {}),
      name: `${written(like?.name ?? 'Service')} 2`,
    });
    at = services.length - 1;
    draft.touch();
  }
  function dropService(): void {
    const [gone] = services.splice(at, 1);
    const was = at;
    at = Math.max(0, at - 1);
    draft?.touch();
    toast.show(`${written(gone?.name)} is removed.`, () => {
      if (gone) services.splice(was, 0, gone);
      at = was;
      draft?.touch();
    });
  }

  async function keep(over = false): Promise<void> {
    const row = await (over ? draft?.keepOver() : draft?.keep());
    if (!row) return;
    toast.show(`${carrier} is kept as version ${row.revision}.`);
    kept(row);
  }
  function leave(): void {
    if (draft?.changed) {
      const again = draft.drop();
      toast.show('What was changed is left out.', again);
    }
    close();
  }
  function go(): void {
    if (faulty >= 0) at = faulty;
    requestAnimationFrame(() => {
      const exact = document.getElementById(`t-${draft?.field}`);
      const row = document.getElementById(`t-${draft?.field}[0]`);
      (exact ?? row)?.focus();
    });
  }

  /** A table of the kept tariff as CSV; of one that is being changed only once that is kept. */
  function table(path: string): { out: string; read: (text: string) => void } | null {
    const found = /^services\[(\d+)\]\.charges\[(\d+)\]$/.exec(path);
    if (!found || !draft || draft.changed) return null;
    const [service, charge] = [Number(found[1]), Number(found[2])];
    return {
      out: `/api/tariffs/${encodeURIComponent(carrier)}/services/${service}/charges/${charge}/table.csv`,
      read: (text) =>
        start(async () => {
          const row = await calls.readTable(carrier, service, charge, text);
          toast.show(`The table is read in; ${carrier} is version ${row.revision}.`);
          kept(row);
        }, tell),
    };
  }
</script>

{#if draft && schema}
  <div class="bar bg-sheet sticky top-0 z-3 flex flex-wrap items-center gap-x-3 gap-y-1 px-0 py-1">
    <h2 class="mr-auto">{carrier}, from version {draft.revision}</h2>
    <button
      class="btn btn-main flex-none whitespace-nowrap"
      disabled={draft.problem !== '' || !draft.changed}
      onclick={() => void keep()}>Save as a new version</button
    >
    <button class="btn flex-none whitespace-nowrap" onclick={leave}
      >{draft.changed ? 'Discard changes' : 'Done'}</button
    >
  </div>
  <div class="says text-soft text-note min-h-6" role="status">
    {#if draft.newest !== null}
      <p class="no text-stop font-strong">
        Version {draft.newest} was kept meanwhile.
        <button class="link" onclick={() => void keep(true)}>Save mine over it</button>
      </p>
    {:else if trouble || draft.trouble}<p class="no text-stop font-strong">{trouble || draft.trouble}</p>
    {:else if draft.problem}
      <p class="no text-stop font-strong">
        {draft.field}: {draft.problem} <button class="link" onclick={go}>Go there</button>
      </p>
    {:else if draft.findings.length}
      <p class="text-amber">
        Warnings: {draft.findings.slice(0, 2).join('; ')}{draft.findings.length > 2
          ? `, and ${draft.findings.length - 2} more`
          : ''}
      </p>
    {:else if draft.restored}<p>What was typed before is here again; it is not kept yet.</p>
    {:else}<p>Nothing wrong is found in it.</p>{/if}
  </div>
  <div class="fields mx-0 my-1.5 flex gap-3.5">
    {#each ['currency', 'units'] as name (name)}
      {@const node = schema.root.properties?.[name]}
      {#if node}
        <Entry
          {schema}
          {node}
          owner={draft.file}
          {name}
          path={name}
          label={name}
          {wrong}
          touch={() => draft?.touch()}
        />
      {/if}
    {/each}
  </div>
  <div
    class="tabs border-b-hair2 mb-2 flex flex-wrap gap-x-1 gap-y-0 border-b"
    role="group"
    aria-label="Services"
  >
    {#each services as service, n (service)}
      <button
        class="aria-pressed:font-title px-3 pt-1.5 pb-1.75 aria-pressed:[box-shadow:inset_0_-3px_0_var(--twine)]"
        aria-pressed={n === at}
        class:faulty={n === faulty}
        onclick={() => (at = n)}
        >{written(service.name)}
        <small class="text-soft font-plain">{written(service.programme)}</small></button
      >
    {/each}
    <button class="link px-3 pt-1.5 pb-1.75" onclick={addService}>Add one like it</button>
    {#if services.length > 1}<button class="link px-3 pt-1.5 pb-1.75" onclick={dropService}>Remove it</button
      >{/if}
  </div>
  {#key at}
    {#if services[at]}
      <Entry
        {schema}
        node={serviceNode}
        owner={services as unknown as Json[]}
        name={at}
        path="services[{at}]"
        label="service"
        {wrong}
        touch={() => draft?.touch()}
        {table}
        open
      />
    {/if}
  {/key}
{:else}
  <p class="no text-stop font-strong" role="status">{trouble}</p>
{/if}

<style>
  .tabs .faulty {
    color: var(--stop);
  }
</style>
