<script lang="ts">
  // A field with its label, and one line kept below it for what was read. What is wrong stands in a Faults line below
  // its row, which describes the field; a fault only turns red once the field is left.
  import { readOtherwise } from '../readback';

  interface Props {
    label: string;
    value: string | undefined;
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
    /** So many letters at most. */
    most?: number;
    disabled?: boolean;
    oninput?: () => void;
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
    most = undefined,
    disabled = false,
    oninput = undefined,
  }: Props = $props();

  let focused = $state(false);
  const faulty = $derived(problem !== '' && !focused);
  const other = $derived(readOtherwise(read, value ?? ''));
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
    {disabled}
    maxlength={most ?? (measure ? 80 : 120)}
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
      {problem || !other ? '' : `= ${other}`}
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
