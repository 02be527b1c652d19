<script lang="ts" generics="T extends string">
  // One of a few, in a list that opens under its field: arrow keys or letters go through it, Enter picks.
  import { Select } from 'bits-ui';

  interface Props {
    id?: string;
    label: string;
    /** Where the label stands: above the field, before it, or for a screen reader only. */
    labelled?: 'above' | 'beside' | 'unseen';
    /** Each as its words, or as its value and the words for it. */
    options: readonly (T | readonly [T, string])[];
    value: T;
    change?: (value: T) => void;
    disabled?: boolean;
    /** A warning that it waits for an answer. */
    open?: boolean;
    /** How wide and high the field is. */
    place?: string;
  }
  let {
    id = undefined,
    label,
    labelled = 'above',
    options,
    value = $bindable(),
    change = undefined,
    disabled = false,
    open = false,
    place = 'w-full',
  }: Props = $props();

  const own = $props.id();
  const named = $derived(id ?? `choose-${own}`);
  const items = $derived(
    options.map((one): { value: T; label: string } =>
      typeof one === 'string' ? { value: one, label: one } : { value: one[0], label: one[1] },
    ),
  );
  // What is kept and no longer offered is shown as it is.
  const said = $derived(items.find((one) => one.value === value)?.label ?? value);

  function picked(one: string): void {
    value = one as T;
    change?.(value);
  }
</script>

<div class={labelled === 'beside' ? 'listed' : labelled === 'above' ? 'min-w-0' : 'contents'}>
  {#if labelled !== 'unseen'}
    <span
      id="{named}-label"
      class={labelled === 'above' ? 'text-soft text-small mb-0.5 block whitespace-nowrap' : ''}>{label}</span
    >
  {/if}
  <Select.Root type="single" {items} {disabled} bind:value={() => value, picked}>
    <Select.Trigger
      id={named}
      role="combobox"
      class="choose field text-ink flex min-w-0 items-center justify-between gap-1.5 text-left {open
        ? 'border-l-amber-mark border-l-4'
        : ''} {place}"
      aria-label={labelled === 'unseen' ? label : undefined}
      aria-labelledby={labelled === 'unseen' ? undefined : `${named}-label`}
      ><span class="truncate">{said}</span><span class="text-soft flex-none" aria-hidden="true">▾</span
      ></Select.Trigger
    >
    <Select.Portal>
      <Select.Content
        class="choices border-edge bg-sheet text-ink text-body z-50 max-h-80 min-w-(--bits-select-anchor-width) overflow-y-auto border"
        sideOffset={2}
        aria-label={label}
      >
        {#each items as one (one.value)}
          <Select.Item
            class="data-highlighted:bg-twine-pale max-narrow:py-3 flex cursor-pointer items-center gap-2 px-2.5 py-2"
            value={one.value}
            label={one.label}
            ><span class="text-twine w-3 flex-none" aria-hidden="true">{one.value === value ? '•' : ''}</span
            >{one.label}</Select.Item
          >
        {/each}
      </Select.Content>
    </Select.Portal>
  </Select.Root>
</div>
