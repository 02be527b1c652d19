<script lang="ts">
  // A field in a row of a list: its label is for the ear, the column's heading for the eye.
  import Field from '../../lib/ui/Field.svelte';

  interface Props {
    id: string;
    label: string;
    value: string;
    problem: string;
    measure?: boolean;
    oninput: () => void;
  }
  let { id, label, value = $bindable(), problem, measure = true, oninput }: Props = $props();
</script>

<Field {id} {label} hideLabel {measure} note={false} bind:value {oninput} {problem} faults="shop-faults" />
