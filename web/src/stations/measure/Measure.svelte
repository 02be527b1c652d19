<script lang="ts">
  // Measure: what it is and what hurts, taking it apart, its parts, what goes in with it, where it goes. Tab order is the
  // order of measuring; Enter goes on, and on a part's last field opens the next part.
  import { tick } from 'svelte';
  import type { JobDesk } from '../../job/job.svelte';
  import { keys } from '../../lib/keys.svelte';
  import { isBlank } from '../../job/typed';
  import FilesIn from './FilesIn.svelte';
  import InsideSize from './InsideSize.svelte';
  import KeepKind from './KeepKind.svelte';
  import Known from './Known.svelte';
  import PartSide from './PartSide.svelte';
  import PartsTable from './PartsTable.svelte';
  import Questions from './Questions.svelte';
  import SizedRows from './SizedRows.svelte';
  import TakeApart from './TakeApart.svelte';
  import WhereTo from './WhereTo.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  // A name wraps and is still one line; where several lines are typed Enter begins the next of them.
  const FIELDS = 'input:not([type=checkbox]):not([type=file]), textarea[rows="1"], button[role=combobox]';
  const hasSteps = $derived(desk.typed.steps.length > 0);
  // What is not measured yet is first taken apart.
  let apart = $state(begin());
  let keeping = $state(false);

  function begin(): boolean {
    return desk.typed.steps.length > 0 && desk.typed.parts.every((part) => part.guessed);
  }

  $effect(() =>
    keys.add([
      { key: 'd', does: 'to the destination postcode', act: () => document.getElementById('to')?.focus() },
    ]),
  );

  async function addPart(): Promise<void> {
    const n = desk.parts.add();
    await tick();
    document.getElementById(`part-${n}-name`)?.focus();
  }

  async function addExtra(): Promise<void> {
    desk.typed.extras.push({ name: '', size: '', weight: '' });
    await tick();
    document.getElementById(`extra-${desk.typed.extras.length - 1}-name`)?.focus();
  }

  async function addParcel(): Promise<void> {
    desk.typed.beside.push({ name: '', size: '', weight: '', value: '' });
    await tick();
    document.getElementById(`parcel-${desk.typed.beside.length - 1}-name`)?.focus();
  }

  /** The next row is opened by the last field of the last part; an empty name there says that there are no more. */
  function entered(event: KeyboardEvent): void {
    const input = event.target as HTMLElement;
    if (event.key !== 'Enter' || !input.matches(FIELDS)) return;
    event.preventDefault();
    const last = desk.typed.parts.length - 1;
    const lastPart = desk.typed.parts[last];
    if (input.id === `part-${last}-weight` && lastPart && !isBlank(lastPart)) {
      void addPart();
      return;
    }
    if (last > 0 && lastPart && input.id === `part-${last}-name` && isBlank(lastPart)) {
      desk.parts.remove(last);
      void tick().then(() => document.getElementById('add-extra')?.focus());
      return;
    }
    const lastExtra = desk.typed.extras.length - 1;
    if (input.id === `extra-${lastExtra}-weight`) {
      void addExtra();
      return;
    }
    const fields = [
      ...(event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>(`${FIELDS}, button.add`),
    ];
    fields[fields.indexOf(input) + 1]?.focus();
  }

  /** Enter goes on from a list that is closed too; the space bar, an arrow or a letter opens it or picks. */
  function passList(event: KeyboardEvent): void {
    const closed = (event.target as HTMLElement).matches('button[role=combobox][aria-expanded=false]');
    if (event.key !== 'Enter' || !closed) return;
    event.stopPropagation();
    entered(event);
  }
</script>

<!-- Enter in any of its fields goes on to the next. -->
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<form
  class="max-desk:flex max-desk:flex-col max-desk:items-stretch grid grid-cols-[minmax(0,1fr)_268px] items-start gap-4.5"
  onkeydown={entered}
  onkeydowncapture={passList}
  onsubmit={(event) => event.preventDefault()}
  aria-label="Measures"
>
  <div class="col-span-full min-w-0"><WhereTo {desk} /></div>
  <div class="max-desk:contents grid min-w-0 gap-4">
    {#if hasSteps}
      <div class="views border-b-hair2 flex border-b" role="group" aria-label="Take apart or measure">
        <button
          class="text-soft aria-pressed:text-ink aria-pressed:font-title aria-pressed:border-b-twine -mb-px border-b-3 border-b-transparent px-4.5 pt-1.5 pb-2"
          type="button"
          aria-pressed={apart}
          onclick={() => (apart = true)}>Take apart</button
        >
        <button
          class="text-soft aria-pressed:text-ink aria-pressed:font-title aria-pressed:border-b-twine -mb-px border-b-3 border-b-transparent px-4.5 pt-1.5 pb-2"
          type="button"
          aria-pressed={!apart}
          onclick={() => (apart = false)}>Parts <span class="figure">{desk.typed.parts.length}</span></button
        >
      </div>
    {/if}
    <Questions {desk} />
    {#if apart}
      <TakeApart {desk} />
    {:else}
      <PartsTable {desk} />
      <FilesIn {desk} add={addPart} keep={() => (keeping = true)} />
      <div class="max-desk:order-2 grid min-w-0 gap-4">
        <SizedRows
          {desk}
          rows={desk.typed.extras}
          field="extras"
          one="extra"
          title="Also in the box"
          such={{ name: 'oil bottle', size: '4 x 3 x 2', weight: '6 oz' }}
          add={addExtra}
        />
        <SizedRows
          {desk}
          rows={desk.typed.beside}
          field="beside"
          one="parcel"
          title="Other parcels in this shipment"
          such={{ name: 'stand', size: '20 x 14 x 9', weight: '21 lb' }}
          valued
          add={addParcel}
        />
      </div>
    {/if}
  </div>
  <div
    class="beside desk:sticky desk:top-2 max-desk:order-1 max-desk:grid-cols-[minmax(0,1fr)_minmax(0,1fr)] max-desk:items-start max-phone:grid-cols-[minmax(0,1fr)] grid min-w-0 grid-cols-[minmax(0,1fr)] gap-4"
  >
    {#if apart}
      <Known code={desk.kind} of="taking apart" />
    {:else}
      <PartSide {desk} />
    {/if}
    <InsideSize {desk} />
  </div>
</form>
<KeepKind {desk} bind:open={keeping} />
