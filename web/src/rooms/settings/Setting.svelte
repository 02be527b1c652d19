<script lang="ts">
  // A measure of the settings: its field, and what is wrong with it, told at the end of the page.
  import Field from '../../lib/ui/Field.svelte';
  import type { ListProps } from './words';

  interface Props extends Pick<ListProps, 'wrong' | 'touched'> {
    /** As the shop's file has it, and the end of the field's id. */
    name: string;
    label: string;
    /** Where it stands in the file, where that is not by its name alone. */
    path?: string;
    value: string;
  }
  let { name, label, path = name, value = $bindable(), wrong, touched }: Props = $props();
</script>

<Field
  id="shop-{name}"
  {label}
  measure
  note={false}
  problem={wrong(path)}
  faults="shop-faults"
  bind:value
  oninput={touched}
/>
