<script lang="ts">
  // Measure: the thing, what must go in with it, where it goes. Tab order is the order of measuring.
  import { tick } from 'svelte';
  import type { JobDesk } from '../../job/job.svelte';
  import Extras from './Extras.svelte';
  import InsideSize from './InsideSize.svelte';
  import Thing from './Thing.svelte';
  import WhereTo from './WhereTo.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  async function addExtra(): Promise<void> {
    desk.typed.extras.push({ name: '', size: '', weight: '' });
    await tick();
    document.getElementById(`extra-${desk.typed.extras.length - 1}-name`)?.focus();
  }

  /** Enter goes on to the next field; on the last extra's last field it opens the next one. */
  function entered(event: KeyboardEvent): void {
    const input = event.target as HTMLElement;
    if (event.key !== 'Enter' || input.tagName !== 'INPUT') return;
    event.preventDefault();
    const last = desk.typed.extras.length - 1;
    if (input.id === `extra-${last}-weight` || (input.id === 'gap' && last < 0)) {
      void addExtra();
      return;
    }
    const fields = [
      ...(event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('input, button.add'),
    ];
    fields[fields.indexOf(input) + 1]?.focus();
  }
</script>

<!-- Enter in any of its fields goes on to the next. -->
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<form class="measure" onkeydown={entered} onsubmit={(event) => event.preventDefault()} aria-label="Measures">
  <div class="typed">
    <Thing {desk} />
    <Extras {desk} add={addExtra} />
    <WhereTo {desk} />
  </div>
  <div class="beside"><InsideSize {desk} /></div>
</form>

<style>
  .measure {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 336px;
    gap: 18px 22px;
    align-items: start;
  }
  .typed {
    display: grid;
    gap: 18px;
  }
  /* Narrow: the inside size comes right after the measures it follows from. */
  @media (max-width: 1100px) {
    .measure {
      display: flex;
      flex-direction: column;
      align-items: stretch;
    }
    .typed {
      display: contents;
    }
    .typed > :global(section) {
      order: 2;
    }
    .typed > :global(section:first-child) {
      order: 0;
    }
    .beside {
      order: 1;
    }
  }
</style>
