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
      <li class:left={!step.chosen} class:done={step.done} data-step={step.id}>
        <label class="which">
          <input
            class="take"
            type="checkbox"
            checked={step.chosen ?? false}
            onchange={(event) => take(step, event.currentTarget.checked)}
          />
          <span><b class="figure">{n + 1}</b> {step.do}</span>
        </label>
        <span class="saves">{saved(step) ? `saves ${saved(step)}` : ''}</span>
        <label class="tick">
          <input
            type="checkbox"
            disabled={!step.chosen}
            checked={step.done ?? false}
            onchange={(event) => done(step, event.currentTarget.checked)}
          />
          done<span class="sr-only">: {step.do}</span>
        </label>
        <div class="how">
          {#if step.tool}<span class="tool">{step.tool}</span>{/if}
          {#if step.turn}<p class="turn">{step.turn}</p>{/if}
          {#if step.caution}<p class="caution">{step.caution}</p>{/if}
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
  {#if trouble}<p class="trouble" role="alert">{trouble}</p>{/if}
  <div class="papers">
    {#if bags.length}
      <a class="btn" href="/api/jobs/{desk.id}/bag-labels.pdf" onclick={print}
        >Labels for {bags.length} bags</a
      >
    {/if}
    {#if taken.length}
      <a class="btn" href="/api/jobs/{desk.id}/put-together.pdf" onclick={print}>Reassembly sheet</a>
    {/if}
    <span class="soft">Measures of what is left, in {shop.units}, stand under Parts.</span>
  </div>
</section>

<style>
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto 76px;
    gap: 0 14px;
    align-items: baseline;
    padding: 9px 4px 9px 0;
    border-bottom: 1px solid var(--hair);
  }
  .which {
    display: grid;
    grid-template-columns: 26px 1fr;
    align-items: baseline;
    cursor: pointer;
    font-size: 16px;
  }
  .which b {
    margin-right: 4px;
  }
  input {
    width: 18px;
    height: 18px;
    accent-color: var(--twine);
  }
  .left .which span {
    color: var(--soft);
  }
  .done .which span {
    text-decoration: line-through;
    text-decoration-thickness: 1px;
  }
  .saves {
    font-size: 14px;
    font-weight: 600;
    color: var(--twine);
    white-space: nowrap;
  }
  .tick {
    display: flex;
    gap: 6px;
    align-items: center;
    font-size: 14px;
  }
  .how {
    grid-column: 1 / -1;
    display: flex;
    flex-wrap: wrap;
    gap: 3px 14px;
    padding-left: 26px;
    font-size: 14px;
    color: var(--soft);
  }
  .left .turn,
  .left .caution {
    opacity: 1;
  }
  .turn {
    flex: 1 0 100%;
    color: var(--ink);
    font-weight: 600;
  }
  .caution {
    flex: 1 0 100%;
    padding: 4px 10px;
    color: var(--ink);
    background: var(--amber-pale);
    border-left: 4px solid var(--amber-mark);
  }
  .papers {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 10px;
    margin-top: 12px;
  }
  .soft {
    color: var(--soft);
    font-size: 13.5px;
  }
  .trouble {
    color: var(--stop);
  }
</style>
