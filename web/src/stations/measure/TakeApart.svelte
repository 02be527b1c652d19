<script lang="ts">
  // Taking apart, from top to bottom: how far to go is a choice, and each step says the inches it saves.
  import { attempt } from '../../lib/attempt';
  import type { JobDesk } from '../../job/job.svelte';
  import { type StepEntry } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import { toast } from '../../lib/toast.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  let trouble = $state('');
  const taken = $derived(desk.typed.steps.filter((step) => step.chosen));
  const bags = $derived(taken.filter((step) => step.keep));
  const bagOf = (step: StepEntry) => bags.findIndex((one) => one.id === step.id) + 1;

  /** What a step saves, in words. */
  function saved(step: StepEntry): string {
    const saves = Object.entries(step.saves ?? {});
    const text = (value: unknown) => (typeof value === 'number' ? `${value} mm` : String(value));
    return saves.map(([side, value]) => `${text(value)} of ${side}`).join(', ');
  }

  async function take(step: StepEntry, yes: boolean): Promise<void> {
    await attempt(
      async () => {
        const undo = await desk.parts.takeStep(step.id, yes);
        trouble = '';
        if (!yes && step.frees?.length) {
          toast.show(
            `${step.frees.map((part) => part.name).join(', ')} stays on; what was measured is kept.`,
            undo,
          );
        }
      },
      (said) => (trouble = said),
    );
  }

  function done(step: StepEntry, yes: boolean): void {
    desk.typed.steps = desk.typed.steps.map((one) => (one.id === step.id ? { ...one, done: yes } : one));
    desk.touch();
  }

  /** Up and down go from step to step. */
  function moved(event: KeyboardEvent): void {
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
    const boxes = [...(event.currentTarget as HTMLElement).querySelectorAll<HTMLInputElement>('input.take')];
    const at = boxes.findIndex((box) => box.closest('li')?.contains(event.target as Node));
    const next = boxes[at + (event.key === 'ArrowDown' ? 1 : -1)];
    if (!next) return;
    event.preventDefault();
    next.focus();
  }

  async function print(event: MouseEvent): Promise<void> {
    event.preventDefault();
    const link = event.currentTarget as HTMLAnchorElement;
    if (await desk.saver.settle()) window.open(link.href, '_blank', 'noopener');
  }
</script>

<section aria-label="Taking apart">
  <!-- The check boxes in it are what is worked with. -->
  <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
  <ol onkeydown={moved}>
    {#each desk.typed.steps as step, n (step.id)}
      <li
        class="border-b-hair grid grid-cols-[minmax(0,1fr)_auto_76px] items-baseline gap-x-3.5 gap-y-0 border-b py-2.25 pr-1 pl-0"
        class:left={!step.chosen}
        class:done={step.done}
        data-step={step.id}
      >
        <label class="which text-body grid cursor-pointer grid-cols-[26px_1fr] items-baseline">
          <input
            class="take accent-twine h-4.5 w-4.5"
            type="checkbox"
            checked={step.chosen ?? false}
            onchange={(event) => take(step, event.currentTarget.checked)}
          />
          <span><b class="figure mr-1">{n + 1}</b> {step.do}</span>
        </label>
        <span class="text-twine text-note font-semibold whitespace-nowrap"
          >{saved(step) ? `saves ${saved(step)}` : ''}</span
        >
        <label class="tick text-note flex items-center gap-1.5">
          <input
            class="accent-twine h-4.5 w-4.5"
            type="checkbox"
            disabled={!step.chosen}
            checked={step.done ?? false}
            onchange={(event) => done(step, event.currentTarget.checked)}
          />
          done<span class="sr-only">: {step.do}</span>
        </label>
        <div class="how text-soft text-note col-span-full flex flex-wrap gap-x-3.5 gap-y-0.75 pl-6.5">
          {#if step.tool}<span class="tool">{step.tool}</span>{/if}
          {#if step.turn}<p class="turn text-ink flex-[1_0_100%] font-semibold">{step.turn}</p>{/if}
          {#if step.caution}<p
              class="caution text-ink bg-amber-pale border-l-amber-mark flex-[1_0_100%] border-l-4 px-2.5 py-1"
            >
              {step.caution}
            </p>{/if}
          {#if step.keep}
            <p class="keep">{bagOf(step) ? `Bag ${bagOf(step)}` : 'Bag'}: {step.keep}</p>
          {/if}
          {#if step.frees?.length}
            <p class="keep">comes off: {step.frees.map((part) => part.name).join(', ')}</p>
          {/if}
        </div>
      </li>
    {/each}
  </ol>
  {#if trouble}<p class="trouble text-stop" role="alert">{trouble}</p>{/if}
  <div class="papers mt-3 flex flex-wrap items-center gap-2.5">
    {#if bags.length}
      <a class="btn" href="/api/jobs/{desk.id}/bag-labels.pdf" onclick={print}
        >Labels for {bags.length} bags</a
      >
    {/if}
    {#if taken.length}
      <a class="btn" href="/api/jobs/{desk.id}/put-together.pdf" onclick={print}>Reassembly sheet</a>
    {/if}
    <span class="text-soft text-small">Measures of what is left, in {shop.units}, stand under Parts.</span>
  </div>
</section>

<style>
  .left .which span {
    color: var(--soft);
  }
  .done .which span {
    text-decoration: line-through;
    text-decoration-thickness: 1px;
  }

  .left .turn,
  .left .caution {
    opacity: 1;
  }
</style>
