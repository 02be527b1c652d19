<script lang="ts">
  // Where and when a parcel was handed over, and the receipt that was given for it.
  import { start } from '../../lib/attempt';
  import { toast } from '../../lib/toast.svelte';
  import Field from '../../lib/ui/Field.svelte';
  import Photo from '../../lib/ui/Photo.svelte';
  import TakePhoto from '../../lib/ui/TakePhoto.svelte';
  import Remove from '../../lib/ui/Remove.svelte';
  import type { Sending } from '../../lib/sending.svelte';
  import { dated } from '../../rooms/bench/groups';

  interface Props {
    sending: Sending;
  }
  let { sending }: Props = $props();

  const typed = $derived(sending.typed);

  function today(): void {
    if (!typed) return;
    const before = { ...typed };
    typed.on = dated(new Date());
    start(async () => {
      if (await sending.settle())
        toast.show('Handed over.', () => {
          if (!sending.typed) return;
          sending.typed.on = before.on;
          void sending.settle();
        });
    });
  }

  function photographed(files: string[]): void {
    if (!typed) return;
    typed.receipts = [...new Set([...typed.receipts, ...files])];
    typed.on ||= dated(new Date());
    void sending.settle();
  }

  function drop(name: string): void {
    if (!typed) return;
    typed.receipts = typed.receipts.filter((one) => one !== name);
    sending.touch();
    toast.show('The receipt is removed.', () => {
      typed.receipts.push(name);
      sending.touch();
    });
  }
</script>

{#if typed}
  <div class="max-phone:grid-cols-1 grid grid-cols-3 gap-2.5">
    <Field
      id="over-on"
      label="Handed over on"
      type="date"
      note={false}
      faults="sending-faults"
      bind:value={typed.on}
      oninput={() => sending.touch()}
    />
    <Field
      id="over-where"
      label="Where"
      note={false}
      placeholder="counter, driver, collection"
      disabled={!typed.on}
      bind:value={typed.where}
      oninput={() => sending.touch()}
    />
    <Field
      id="over-expected"
      label="Expected on"
      type="date"
      note={false}
      faults="sending-faults"
      disabled={!typed.on}
      problem={sending.field === 'handed_over.expected' ? sending.trouble : ''}
      bind:value={typed.expected}
      oninput={() => sending.touch()}
    />
  </div>
  <div class="mt-2.5 flex flex-wrap items-center gap-x-4 gap-y-2">
    {#if !typed.on}<button class="btn btn-main" onclick={today}>Handed over today</button>{/if}
    <TakePhoto words="Photograph the receipt" label="Photograph of the receipt" taken={photographed} />
    {#each typed.receipts as receipt, n (receipt)}
      <span class="inline-flex items-center gap-1">
        <Photo file={receipt} alt="Receipt {n + 1}" />
        <Remove of="receipt {n + 1}" go={() => drop(receipt)} />
      </span>
    {/each}
  </div>
{/if}
