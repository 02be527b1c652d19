<script lang="ts">
  // What can hurt someone or is not taken: each question with its answer, and the caution right below it.
  import type { JobDesk } from '../../job/job.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const hazards = $derived(desk.work.view?.hazards ?? []);

  function answer(code: string, given: string): void {
    const others = Object.entries(desk.typed.answers).filter(([asked]) => asked !== code);
    desk.typed.answers = Object.fromEntries(given ? [...others, [code, given]] : others);
    desk.touch();
  }
</script>

{#if hazards.length}
  <section class="asked" aria-label="Safety questions">
    <h2>Safety questions</h2>
    {#each hazards as hazard (hazard.code)}
      <div class="question">
        <label for="ask-{hazard.code}">{hazard.asks}</label>
        <select
          id="ask-{hazard.code}"
          class="field"
          class:open={!hazard.given}
          value={desk.typed.answers[hazard.code] ?? ''}
          onchange={(event) => answer(hazard.code, event.currentTarget.value)}
        >
          <option value="">not answered</option>
          {#each hazard.answers as one (one.code)}<option value={one.code}>{one.says}</option>{/each}
        </select>
        {#if hazard.caution}
          <p class:never={hazard.never} data-caution={hazard.code}>
            {#if hazard.never}<b>Stop.</b>{/if}
            {hazard.caution}
          </p>
        {/if}
      </div>
    {/each}
  </section>
{/if}

<style>
  .asked {
    display: grid;
    gap: 6px;
  }
  .question {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 210px;
    gap: 4px 12px;
    align-items: center;
  }
  .field {
    height: 36px;
  }
  .open {
    border-left: 4px solid var(--amber-mark);
  }
  p {
    grid-column: 1 / -1;
    padding: 6px 12px;
    font-size: 14px;
    background: var(--amber-pale);
    border-left: 4px solid var(--amber-mark);
  }
  .never {
    background: var(--stop-pale);
    border-left-color: var(--stop);
  }
  @media (max-width: 620px) {
    .question {
      grid-template-columns: minmax(0, 1fr);
    }
  }
</style>
