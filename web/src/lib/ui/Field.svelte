<script lang="ts">
  // A field with its label, and one line kept below it for what was read. What is wrong stands in a Faults line below
  // its row, which describes the field; a fault only turns red once the field is left.
  interface Props {
    label: string;
    value: string;
    problem?: string;
    read?: string;
    placeholder?: string;
    large?: boolean;
    measure?: boolean;
    /** What a device may put into it. */
    takes?: 'length' | 'mass' | undefined;
    type?: 'text' | 'date';
    id: string;
    hideLabel?: boolean;
    note?: boolean;
    /** The id of the Faults line below the row. */
    faults?: string;
    oninput: () => void;
  }
  let {
    label,
    value = $bindable(),
    problem = '',
    read = '',
    placeholder = '',
    large = false,
    measure = false,
    takes = undefined,
    type = 'text',
    id,
    hideLabel = false,
    note = true,
    faults = '',
    oninput,
  }: Props = $props();

  let focused = $state(false);
  const faulty = $derived(problem !== '' && !focused);
  // What was read is told only where it says more than what was typed: a foot in inches, a centimetre in sixteenths.
  const plain = (said: string) =>
    said
      .replace(/ (in|cm|kg|lb)$/, '')
      .replace(/[\s"-]+/g, ' ')
      .trim();
  const told = $derived(read && plain(read) !== plain(value) ? `= ${read}` : '');
</script>

<div class="min-w-0">
  <label class="text-soft text-small mb-0.5 block {hideLabel ? 'max-phone:not-sr-only sr-only' : ''}" for={id}
    >{label}</label
  >
  <input
    {id}
    {type}
    {placeholder}
    class="field"
    class:large
    class:figure={measure}
    maxlength={measure ? 80 : 120}
    data-measure={takes}
    autocomplete="off"
    autocapitalize="off"
    spellcheck={measure ? false : undefined}
    aria-invalid={faulty}
    aria-describedby={[note ? `${id}-note` : '', faults].filter(Boolean).join(' ') || undefined}
    bind:value
    {oninput}
    onfocus={() => (focused = true)}
    onblur={() => (focused = false)}
  />
  {#if note}
    <p
      id="{id}-note"
      class="note text-soft text-small min-h-4.75 overflow-hidden leading-[19px] text-ellipsis whitespace-nowrap"
    >
      {problem ? '' : told}
    </p>
  {/if}
</div>

<style>
  .large {
    height: 52px;
    padding: 0 8px;
    font-size: var(--text-head);
    letter-spacing: -0.05em;
  }
  .field::placeholder {
    color: var(--soft);
    font-weight: 400;
    opacity: 1;
  }
</style>
