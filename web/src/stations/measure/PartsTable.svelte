<script lang="ts">
  // The parts, a row each, filled by keyboard alone: name, count, shape, its measures, weight; Enter goes on, and on the
  // last field opens the next part.
  import Choose from '../../lib/ui/Choose.svelte';
  import type { JobDesk } from '../../job/job.svelte';
  import { asked, shapes, SHORT } from '../../job/shapes';
  import { readOtherwise } from '../../lib/readback';
  import { shop } from '../../lib/shop.svelte';
  import { toast } from '../../lib/toast.svelte';
  import Faults from '../../lib/ui/Faults.svelte';
  import { fieldsOf, nameOf } from './ask';
  import Remove from '../../lib/ui/Remove.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const HINT = `Measure unwrapped, at the widest point. 10 1/2, 5' 3", 26.7 cm, 4 lb 6 oz are all read. Enter goes on to the next field.`;
  let focus = $state('');

  const faults = $derived(
    desk.typed.parts.map((part, n) => [
      {
        field: `part-${n}-count`,
        label: `Count of ${nameOf(part, n)}`,
        sentence: desk.work.problem(`parts[${n}].count`),
      },
      ...fieldsOf(part, n).map(({ field, label, path }) => ({
        field,
        label: desk.typed.parts.length > 1 ? `${label} of ${nameOf(part, n)}` : label,
        sentence: desk.work.problem(path),
      })),
    ]),
  );

  const told = $derived.by(() => {
    const part = desk.typed.parts[desk.parts.chosen];
    const field = part && fieldsOf(part, desk.parts.chosen).find((one) => one.field === focus);
    if (!part || !field) return '';
    const read = desk.work.read(field.path);
    const name = field.field.split('-').slice(2).join('-');
    const typed = name === 'weight' ? part.weight : (part.measures[name] ?? '');
    const other = readOtherwise(read, typed);
    return other && `${field.label} = ${other}`;
  });

  const faulty = (field: string) =>
    field !== focus && faults.flat().some((fault) => fault.field === field && fault.sentence !== '');
  // What is wrong in a row stands below it once its field is left; the last row has the line of the hint, whose room is kept.
  const last = $derived(desk.typed.parts.length - 1);
  const wrongIn = (n: number) =>
    n < last && (faults[n] ?? []).some((fault) => fault.sentence !== '' && fault.field !== focus);
  const described = (n: number) => `part-${wrongIn(n) ? n : last}-faults`;

  function entered(n: number, event: FocusEvent): void {
    desk.parts.chosen = n;
    focus = (event.target as HTMLElement).id;
  }

  /** Up and down keep to the column. */
  function moved(event: KeyboardEvent, n: number): void {
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
    const input = event.target as HTMLElement;
    if (input.tagName === 'SELECT') return;
    const other = n + (event.key === 'ArrowDown' ? 1 : -1);
    const part = desk.typed.parts[other];
    if (!part) return;
    event.preventDefault();
    const column = input.id.split('-').slice(2).join('-');
    const same = document.getElementById(`part-${other}-${column}`);
    (same ?? document.getElementById(`part-${other}-${asked(part.kind)[0]?.name ?? 'weight'}`))?.focus();
  }

  function remove(n: number): void {
    const gone = desk.parts.remove(n);
    if (gone) toast.show(`${nameOf(gone.part, n)} is removed.`, gone.undo);
  }
</script>

<section class="parts grid gap-1" aria-label="Parts">
  <div
    class="row heads text-soft max-phone:grid-cols-[minmax(0,1fr)_44px_96px] max-phone:hidden text-small bg-paper sticky top-0 z-1 grid grid-cols-[minmax(0,1.2fr)_38px_90px_minmax(0,2.05fr)_106px_24px] gap-1.25 border-l-3 border-l-transparent pt-0.5 pr-0 pb-0 pl-1.75"
    aria-hidden="true"
  >
    <span>Part</span><span>Qty</span><span>Shape</span><span>Measures, {shop.units}</span><span
      >Weight, {shop.massUnit}</span
    >
  </div>
  {#each desk.typed.parts as part, n (part.key)}
    {@const called = nameOf(part, n)}
    <!-- Focus anywhere in it makes it the part in hand; up and down keep to the column. -->
    <!-- svelte-ignore a11y_no_static_element_interactions -->
    <div
      class="row max-phone:grid-cols-[minmax(0,1fr)_44px_96px] grid grid-cols-[minmax(0,1.2fr)_38px_90px_minmax(0,2.05fr)_106px_24px] items-end gap-1.25 border-l-3 border-l-transparent py-0.5 pr-0 pl-1.75"
      class:chosen={n === desk.parts.chosen}
      class:guessed={part.guessed}
      onfocusin={(event) => entered(n, event)}
      onfocusout={() => (focus = '')}
      onkeydown={(event) => moved(event, n)}
    >
      <textarea
        id="part-{n}-name"
        class="field [field-sizing:content] h-auto max-h-29.5 min-h-10 min-w-0 resize-none overflow-hidden px-1.5 py-2.25 leading-5"
        rows="1"
        aria-label="Name of part {n + 1}"
        placeholder={n === 0 ? 'what it is' : 'next part'}
        maxlength="120"
        autocomplete="off"
        bind:value={() => part.name, (said) => (part.name = said.replace(/\s*\n\s*/g, ' '))}
        oninput={() => desk.touch()}></textarea>
      <input
        id="part-{n}-count"
        class="field figure min-w-0 px-1.5 py-0"
        aria-label="Count of {called}"
        inputmode="numeric"
        maxlength="3"
        autocomplete="off"
        aria-invalid={faulty(`part-${n}-count`)}
        aria-describedby={described(n)}
        bind:value={part.count}
        oninput={() => desk.touch()}
      />
      <Choose
        id="part-{n}-shape"
        labelled="unseen"
        label="Shape of {called}"
        place="px-1.5"
        bind:value={part.kind}
        change={() => desk.parts.measured(part)}
        options={shapes().map((kind) => [kind.kind, kind.title] as const)}
      />
      <div class="max-phone:col-span-full grid grid-cols-3 gap-1.25">
        {#each asked(part.kind) as { name, label } (name)}
          <label class="min-w-0" for="part-{n}-{name}">
            <span class="text-soft text-fine block truncate leading-4" aria-hidden="true"
              >{SHORT[name] ?? label.split(' ')[0]}</span
            ><input
              id="part-{n}-{name}"
              class="field figure min-w-0 px-1.5 py-0"
              data-measure="length"
              aria-label="{label} of {called}, {shop.units}"
              maxlength="80"
              autocomplete="off"
              autocapitalize="off"
              spellcheck="false"
              aria-invalid={faulty(`part-${n}-${name}`)}
              aria-describedby={described(n)}
              bind:value={() => part.measures[name] ?? '', (said) => (part.measures[name] = said)}
              oninput={() => desk.parts.measured(part)}
            /></label
          >
        {/each}
      </div>
      <label class="min-w-0" for="part-{n}-weight">
        <span class="text-soft text-fine block truncate leading-4" aria-hidden="true"
          >{Number(part.count) > 1 ? 'Weight of each' : 'Weight'}</span
        ><input
          id="part-{n}-weight"
          class="field figure min-w-0 px-1.5 py-0"
          data-measure="mass"
          aria-label="Weight of {called}, {shop.massUnit}"
          maxlength="80"
          autocomplete="off"
          autocapitalize="off"
          spellcheck="false"
          aria-invalid={faulty(`part-${n}-weight`)}
          aria-describedby={described(n)}
          bind:value={part.weight}
          oninput={() => desk.parts.measured(part)}
        /></label
      >
      <Remove of={called} go={() => remove(n)} passed />
      {#if wrongIn(n)}
        <div class="col-span-full"><Faults id="part-{n}-faults" faults={faults[n] ?? []} /></div>
      {/if}
    </div>
  {/each}
  <Faults id="part-{last}-faults" faults={faults[last] ?? []} hint={told || HINT} />
</section>

<style>
  .chosen {
    border-left-color: var(--twine);
    background: color-mix(in srgb, var(--twine-pale) 55%, transparent);
  }

  .figure.field {
    font-size: var(--text-body);
    letter-spacing: -0.07em;
  }
  .field::placeholder {
    color: var(--soft);
    font-weight: 400;
    font-family: var(--font-sans);
    font-size: var(--text-small);
    letter-spacing: 0;
    opacity: 1;
  }
  /* Measures that are the kind's and not this thing's stand lighter until they are measured. */
  .guessed .figure.field {
    font-weight: 400;
    font-style: italic;
    color: var(--soft);
    border-style: dashed;
  }
</style>
