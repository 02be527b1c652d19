<script lang="ts">
  // Removes a row, a column or a choice: one sign everywhere, large enough for a thumb.
  interface Props {
    /** What is removed, for a screen reader. */
    of: string;
    go: () => void;
    /** Where it stands, where that is not beside its row. */
    place?: string;
    /** Whether Tab passes it over, where keys reach the same elsewhere. */
    passed?: boolean;
  }
  let { of, go, place = '', passed = false }: Props = $props();
</script>

<button
  type="button"
  class="off text-soft hover:text-stop text-head min-h-8.5 min-w-7 leading-none {place}"
  tabindex={passed ? -1 : undefined}
  onclick={go}
  aria-label="Remove {of}">×</button
>
