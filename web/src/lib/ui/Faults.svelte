<script lang="ts">
  // The line below a row of fields: a hint, or what is wrong in one of them, named by its label. Its room is kept, so that
  // nothing moves; words are red only once the field is left, as a half typed measure is no fault yet.
  interface Props {
    id: string;
    faults: { field: string; label: string; sentence: string }[];
    hint?: string;
    /** Whether no room is kept for it while there is nothing to say. */
    tight?: boolean;
  }
  let { id, faults, hint = '', tight = false }: Props = $props();

  let focus = $state('');
  const found = $derived(faults.filter((fault) => fault.sentence !== ''));
  const shown = $derived(found.find((fault) => fault.field !== focus) ?? found[0]);
</script>

<svelte:document
  onfocusin={(event) => (focus = (event.target as HTMLElement).id)}
  onfocusout={() => (focus = '')}
/>

<p
  {id}
  class="text-soft text-small leading-[20px] {tight ? '' : 'min-h-10'}"
  class:wrong={shown && shown.field !== focus}
  aria-live="polite"
>
  {#if shown}{shown.label}: {shown.sentence}{:else}{hint}{/if}
</p>

<style>
  .wrong {
    color: var(--stop);
    font-weight: 550;
  }
</style>
