<script lang="ts">
  // The number of a label that was bought elsewhere: at a counter, or prepaid by the sale.
  import Field from '../../lib/ui/Field.svelte';
  import type { Sending } from '../../lib/sending.svelte';

  interface Props {
    sending: Sending;
  }
  let { sending }: Props = $props();
</script>

{#if sending.typed}
  <Field
    id="sending-number"
    label="Tracking number of a label bought elsewhere"
    measure
    note={false}
    most={40}
    placeholder="type or scan it"
    faults="sending-faults"
    problem={sending.field === 'sending.number' ? sending.trouble : ''}
    bind:value={sending.typed.number}
    oninput={() => sending.touch()}
  />
{/if}
