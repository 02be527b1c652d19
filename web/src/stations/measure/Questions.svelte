<script lang="ts">
  // What can hurt someone or is not taken: each question with its answer, and the caution right below it.
  import Choose from '../../lib/ui/Choose.svelte';
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
  <section class="grid gap-1.5" aria-label="Safety questions">
    <h2>Safety questions</h2>
    {#each hazards as hazard (hazard.code)}
      <div
        class="max-phone:grid-cols-[minmax(0,1fr)] grid grid-cols-[minmax(0,1fr)_210px] items-center gap-x-3 gap-y-1"
      >
        <span aria-hidden="true">{hazard.asks}</span>
        <Choose
          id="ask-{hazard.code}"
          labelled="unseen"
          label={hazard.asks}
          place="h-9"
          open={!hazard.given}
          value={desk.typed.answers[hazard.code] ?? ''}
          change={(code) => answer(hazard.code, code)}
          options={[['', 'not answered'], ...hazard.answers.map((one) => [one.code, one.says] as const)]}
        />
        {#if hazard.caution}
          <p
            class="bg-amber-pale border-l-amber-mark text-note col-span-full border-l-4 px-3 py-1.5"
            class:never={hazard.never}
            data-caution={hazard.code}
          >
            {#if hazard.never}<b>Stop.</b>{/if}
            {hazard.caution}
          </p>
        {/if}
      </div>
    {/each}
  </section>
{/if}

<style>
  .never {
    background: var(--stop-pale);
    border-left-color: var(--stop);
  }
</style>
