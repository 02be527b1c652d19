<script lang="ts">
  // The practice job says what to do next, and whether it is done, from the tape to the price.
  import { Asked } from '../../lib/asked.svelte';
  import { calls } from '../../lib/api/client';
  import { router } from '../../lib/router.svelte';
  import { shop } from '../../lib/shop.svelte';
  import Field from '../../lib/ui/Field.svelte';
  import type { JobDesk } from '../job.svelte';
  import Tape from './Tape.svelte';

  interface Props {
    desk: JobDesk;
    station: string;
  }
  let { desk, station }: Props = $props();

  const WHERE = { measure: 'Measure', protect: 'Protect', box: 'Box', price: 'Price' };
  let firstCut = $state('');
  const asked = new Asked(() => {
    const body = { job: desk.job, first_cut: firstCut };
    return (signal) => calls.practiceSteps(body, signal);
  });
  const steps = $derived(asked.answer?.steps ?? []);
  const step = $derived(steps.find((one) => !one.done));
</script>

<section class="practice border-l-twine bg-sheet mb-4 border-l-4 px-4 py-3" aria-label="Practice">
  <ol class="text-note mb-1.5 flex flex-wrap gap-x-4 gap-y-1">
    {#each steps as one (one.key)}
      <li class={one === step ? 'font-title' : 'text-soft'} aria-current={one === step ? 'step' : undefined}>
        {one.title}{#if one.done}<span class="text-twine">
            &#10003;<span class="sr-only"> done</span></span
          >{/if}
      </li>
    {/each}
  </ol>
  {#if step}
    <p class="max-w-[760px]" aria-live="polite">{step.says}</p>
    {#if step.key === 'sides'}
      <div class="max-phone:grid-cols-1 mt-2.5 grid grid-cols-3 gap-4">
        {#each asked.answer?.tapes ?? [] as tape (tape.side)}
          <Tape side={tape.side} endsMm={tape.ends_mm} units={shop.units} />
        {/each}
      </div>
    {:else if step.key === 'cut'}
      <div class="mt-2 max-w-60">
        <Field
          id="practice-cut"
          label="First setting, {shop.units}"
          measure
          note={false}
          bind:value={firstCut}
        />
      </div>
    {/if}
    <div aria-live="polite">
      {#each step.off as said (said)}<p class="text-stop mt-1">{said}</p>{/each}
    </div>
    {#if step.knot !== station}
      <p class="mt-1.5">
        <button class="link" type="button" onclick={() => router.go(`/jobs/${desk.id}/${step.knot}`)}
          >Go to {WHERE[step.knot]}</button
        >
      </p>
    {/if}
  {:else if steps.length}
    <p class="max-w-[760px]">
      That is a whole job. What follows at the bench is under Pack: what to fetch, then one step a screen.
      This job can be archived.
    </p>
  {/if}
</section>
