<script lang="ts">
  // Who it goes to. It is shown only when asked for: the bench lies open to whoever comes in.
  import { onDestroy } from 'svelte';
  import { attempt, start } from '../../lib/attempt';
  import { calls, Refusal, sentence, type RecipientView } from '../../lib/api/client';
  import Field from '../../lib/ui/Field.svelte';
  import { shop } from '../../lib/shop.svelte';
  import { toast } from '../../lib/toast.svelte';
  import type { JobDesk } from '../../job/job.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const PAUSE_MS = 500;
  let view = $state.raw<RecipientView | null>(null);
  let open = $state(false);
  let forgetting = $state(false);
  let pasted = $state('');
  let lines = $state('');
  let trouble = $state('');
  let typed = $state({ name: '', town: '', region: '', postcode: '', country: '', phone: '', mail: '' });
  let order = $state('');
  let note = $state('');
  let timer: ReturnType<typeof setTimeout> | undefined;

  const FIELDS = [
    ['name', 'Name'],
    ['town', 'Town'],
    ['region', 'State or region'],
    ['postcode', 'Postcode'],
    ['country', 'Country'],
    ['phone', 'Phone'],
    ['mail', 'Mail'],
  ] as const;

  function show(told: RecipientView): void {
    const { address } = told.recipient;
    view = told;
    typed = {
      name: address?.name ?? '',
      town: address?.town ?? '',
      region: address?.region ?? '',
      postcode: address?.postcode ?? '',
      country: address?.country ?? '',
      phone: address?.phone ?? '',
      mail: address?.mail ?? '',
    };
    lines = (address?.lines ?? []).join('\n');
    order = told.recipient.order ?? '';
    note = told.recipient.note ?? '';
  }
  start(async () => {
    show(await calls.recipient(desk.id));
    open = view?.revision === 0;
  });

  function touch(): void {
    clearTimeout(timer);
    timer = setTimeout(() => void save(), PAUSE_MS);
  }
  async function save(): Promise<void> {
    clearTimeout(timer);
    timer = undefined;
    if (!view) return;
    const address = {
      ...typed,
      lines: lines
        .split('\n')
        .map((line) => line.trim())
        .filter(Boolean),
    };
    try {
      view = await calls.changeRecipient(desk.id, {
        revision: view.revision,
        recipient: { address, order, note },
      });
      trouble = '';
    } catch (fault) {
      trouble =
        fault instanceof Refusal && fault.status === 409
          ? 'The recipient was changed in another window. Load the page again to see it; what is typed here is not saved.'
          : sentence(fault);
    }
  }
  onDestroy(() => {
    if (timer !== undefined) void save();
  });

  /** A pasted address is parted into its fields; the text goes once it is. */
  async function part(): Promise<void> {
    const found = await attempt(() => calls.partAddress(pasted));
    if (!found || !view) return;
    const before = { typed: { ...typed }, lines };
    show({ ...view, recipient: { address: found, order, note } });
    pasted = '';
    await save();
    toast.show('The address is in its fields.', async () => {
      typed = before.typed;
      lines = before.lines;
      await save();
    });
  }

  async function forget(): Promise<void> {
    const told = await attempt(() => calls.forgetRecipient(desk.id));
    forgetting = false;
    if (!told) return;
    show(told);
    open = false;
  }

  const code = (text: string) => text.replaceAll(/[\s-]/g, '').toUpperCase();
  const differs = $derived(
    typed.postcode !== '' &&
      desk.typed.to.trim() !== '' &&
      !code(typed.postcode).startsWith(code(desk.typed.to)),
  );
  function priceToIt(): void {
    desk.typed.to = typed.postcode;
    desk.touch();
  }
</script>

<section class="sheet px-4 pt-2.5 pb-3.5" aria-label="Recipient">
  <div class="flex items-baseline gap-4">
    <h2>Recipient</h2>
    {#if view && !open}
      <p class="text-soft">
        {view.forgotten_at
          ? `forgotten on ${view.forgotten_at.slice(0, 10)}`
          : [typed.town, typed.postcode].filter(Boolean).join(' ')}
      </p>
    {/if}
    <button class="link ml-auto" aria-expanded={open} onclick={() => (open = !open)}
      >{open ? 'Hide' : 'Show'}</button
    >
  </div>
  {#if open}
    <div class="max-phone:grid-cols-1 mt-1.5 grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-4">
      <div>
        <label class="text-soft text-small mb-0.5 block" for="pasted">Paste the address</label>
        <textarea
          id="pasted"
          class="field h-auto w-full py-1.5"
          rows="4"
          maxlength="1000"
          bind:value={pasted}
          placeholder="Name&#10;Street&#10;Town, postcode"></textarea>
        <button class="btn mt-1.5" disabled={!pasted.trim()} onclick={() => void part()}
          >Fill the fields</button
        >
      </div>
      <div class="max-phone:grid-cols-1 grid grid-cols-2 gap-2.5">
        <Field
          id="recipient-name"
          label="Name"
          note={false}
          most={120}
          bind:value={typed.name}
          oninput={touch}
        />
        <div class="row-span-2">
          <label class="text-soft text-small mb-0.5 block" for="recipient-lines"
            >Street, one line a line</label
          >
          <textarea
            id="recipient-lines"
            class="field h-auto w-full py-1.5"
            rows="3"
            maxlength="480"
            bind:value={lines}
            oninput={touch}></textarea>
        </div>
        {#each FIELDS.slice(1) as [name, label] (name)}
          <Field
            id="recipient-{name}"
            {label}
            note={false}
            most={name === 'postcode' ? 20 : name === 'region' || name === 'phone' ? 40 : 60}
            bind:value={typed[name]}
            oninput={touch}
          />
        {/each}
        <Field id="order" label="Order number" note={false} most={60} bind:value={order} oninput={touch} />
      </div>
    </div>
    <label class="text-soft text-small mt-2 mb-0.5 block" for="slip-note">Note on the packing slip</label>
    <textarea
      id="slip-note"
      class="field h-auto w-full py-1.5"
      rows="2"
      maxlength="400"
      bind:value={note}
      oninput={touch}></textarea>
    <div role="status" class="min-h-6">
      {#if trouble}<p class="text-stop">{trouble}</p>{/if}
      {#if differs}
        <p class="bg-amber-pale border-l-amber-mark mt-2 border-l-4 px-3 py-1.5">
          The job is priced to {desk.typed.to}; this address is in {typed.postcode}.
          <button class="link" onclick={priceToIt}>Price it to {typed.postcode}</button>
        </p>
      {/if}
    </div>
    {#if view && view.revision > 0 && !view.forgotten_at}
      {#if forgetting}
        <p class="mt-1 flex flex-wrap items-center gap-3">
          Address, order, notes and receipts go for good; the figures stay. Copies of the shop hold them for
          {shop.view?.shop.copies_days ?? 30} more days at most.
          <button class="btn" onclick={() => void forget()}>Forget this person</button>
          <button class="link" onclick={() => (forgetting = false)}>Keep</button>
        </p>
      {:else}
        <button class="link" onclick={() => (forgetting = true)}>Forget this person…</button>
      {/if}
    {/if}
  {/if}
</section>
