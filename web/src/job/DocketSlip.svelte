<script lang="ts">
  // The docket: outside size, weight against billed weight, air, the sum in all, what is missing, cautions.
  import { calls, sentence, type Schemas } from '../lib/api/client';
  import { inDays } from '../lib/days';
  import { toast } from '../lib/toast.svelte';
  import Changed from '../lib/ui/Changed.svelte';
  import Measured from '../lib/ui/Measured.svelte';
  import Why from '../lib/ui/Why.svelte';
  import type { JobDesk } from './job.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  let trying = $state(false);

  // What would make it cheaper, and for which strokes that was worked out.
  let savings = $state<Schemas['SavingView'][]>([]);
  let savingsOf = $state(-1);
  let finds = $state<HTMLButtonElement>();
  const offered = $derived(savingsOf === desk.strokes ? savings : []);

  /** The trim it names, a step further apart, a layer less and pressing are worked out: what holds and costs less stays
   * to choose from. */
  async function lookForSavings(): Promise<void> {
    if (trying) return;
    trying = true;
    const strokes = desk.strokes;
    try {
      savings = await calls.trim({ job: desk.job });
      savingsOf = strokes;
      if (desk.strokes !== strokes) toast.show('Something was typed meanwhile; try it again.');
    } catch (fault) {
      toast.show(sentence(fault));
    } finally {
      trying = false;
    }
  }

  function take(saving: Schemas['SavingView']): void {
    toast.show(`${saving.says}: saves ${saving.saves}.`, desk.become(saving.job));
    finds?.focus(); // the button that was pressed is gone with the list
  }

  const docket = $derived(desk.work.figures?.docket);
  const quote = $derived(docket?.quote);
  const cautions = $derived(desk.work.view?.docket.cautions ?? []);
  const stop = $derived(desk.work.view?.docket.stop ?? []);
  const missing = $derived(desk.work.view?.docket.missing ?? []);
  const billedWhy = $derived(quote?.charges.find((charge) => charge.kind === 'postage')?.why ?? '');
  const share = (of: number | undefined) => Math.round((of ?? 0) * 100);
  const rounding = $derived(share(quote?.rounding_share));
  const size = $derived(share(quote?.size_share));
</script>

<aside aria-label="Docket">
  <svg class="hole" width="20" height="20" aria-hidden="true">
    <circle cx="10" cy="10" r="7" fill="var(--paper)" stroke="var(--hair2)" />
    <path d="M10 0v10" stroke="var(--twine)" stroke-width="3.2" />
  </svg>

  {#if docket?.outside}
    <div class:stale={desk.work.stale} class:awaits={desk.work.awaits}>
      <p class="soft">Outside, as the carrier measures</p>
      <p class="size figure">
        <Why
          of="this outside size"
          why={docket.outside.figure.why}
          note={docket.outside.figure.exact ? '' : 'Shown rounded up.'}
        >
          <Changed text={docket.outside.figure.text}><Measured text={docket.outside.figure.text} /></Changed>
        </Why>
      </p>
      <p class="basis">{docket.basis}</p>

      <dl>
        <dt>Actual weight</dt>
        <dd class="figure">
          <Why of="this weight" why={docket.weight?.why}>
            <Changed text={docket.weight?.text ?? ''}><Measured text={docket.weight?.text ?? ''} /></Changed>
          </Why>
        </dd>
      </dl>
      {#if quote}
        <div class="bars" aria-hidden="true">
          <i style:width="{Math.min(quote.weight_share, 1) * 100}%"></i><i
            class="rounded"
            style:width="{quote.rounding_share * 100}%"
          ></i>
        </div>
        <dl>
          <dt>Billed weight</dt>
          <dd class="figure">
            <Why
              of="this billed weight"
              why={{
                formula: billedWhy,
                values: [],
                rule: `as ${quote.carrier} ${quote.service} rounds and divides`,
              }}
            >
              <Changed text={quote.billed}><Measured text={quote.billed} /></Changed>
            </Why>
          </dd>
          {#if quote.beside.length}
            <dt>Other parcels, billed</dt>
            <dd class="figure">{quote.beside.join(' + ')}</dd>
          {/if}
          {#if size}
            <dt>Share billed for size</dt>
            <dd class="figure amber">{size} %</dd>
          {/if}
          {#if rounding}
            <dt>Share billed for rounding up</dt>
            <dd class="figure">{rounding} %</dd>
          {/if}
          <dt>Air in the box</dt>
          <dd class="figure">{docket.air_percent} %</dd>
        </dl>
      {/if}

      <hr />
      {#if docket.total && quote}
        <p class="total">
          <span>Total cost</span>
          <b class="figure">
            <Why of="this sum" why={docket.total_why}
              ><Changed text={docket.total}>{docket.total}</Changed></Why
            >
          </b>
        </p>
        <p class="soft">{quote.carrier} {quote.service}, {inDays(quote.days)}</p>
        {#if docket.note}<p class="soft">{docket.note}</p>{/if}
        <p class="trim">
          {docket.trim}
          {#if docket.trim_may_be_tried}
            <button
              type="button"
              class="link"
              bind:this={finds}
              aria-disabled={trying}
              onclick={() => void lookForSavings()}>{trying ? 'Trying…' : 'Find savings'}</button
            >
          {/if}
        </p>
        <div aria-live="polite">
          {#if offered.length}
            <div class="savings" role="group" aria-label="Savings found">
              {#each offered as saving (saving.says)}
                <p>
                  {saving.says}: saves <b class="figure">{saving.saves}</b>
                  <button
                    type="button"
                    class="link"
                    onclick={() => take(saving)}
                    aria-label="Take it: {saving.says}">Take it</button
                  >
                </p>
              {/each}
            </div>
          {/if}
        </div>
      {:else}
        <p class="soft">{docket.note}</p>
      {/if}
    </div>
  {:else if desk.work.view}
    <p class="first">
      {#if docket?.note}{docket.note}{:else}
        Enter length, width, height and weight. Box, billed weight and cost appear here as you type.
      {/if}
    </p>
  {/if}

  {#if desk.work.stale}
    <p class="soft mt-2">These figures are from before your last change, which is not complete.</p>
  {/if}

  {#if missing.length || cautions.length || stop.length}
    <hr />
    <ul>
      {#each stop as why (why)}<li class="stop"><b>Stop.</b> {why}</li>{/each}
      {#each cautions as caution (caution)}<li class="mind">{caution}</li>{/each}
      {#each missing as thing (thing)}<li>{thing}</li>{/each}
    </ul>
  {/if}
  <p class="sr-only" role="status">
    {docket?.total && quote && !desk.work.stale ? `Billed ${quote.billed}, ${docket.total} in all` : ''}
  </p>
</aside>

<style>
  .savings {
    font-size: 14px;
  }
  .savings p {
    border-top: 1px solid var(--hair);
    padding: 4px 0;
  }
  .trim {
    margin-top: 4px;
    font-size: 14px;
    min-height: 21px;
    color: var(--amber);
  }
  aside {
    grid-column: 2;
    grid-row: 3;
    align-self: start;
    position: sticky;
    top: 8px;
    min-height: 420px;
    margin-top: -16px;
    padding: 40px 20px 22px;
    background: var(--sheet);
    border: 1px solid var(--hair2);
    clip-path: polygon(22px 0, calc(100% - 22px) 0, 100% 22px, 100% 100%, 0 100%, 0 22px);
  }
  .hole {
    position: absolute;
    left: calc(50% - 10px);
    top: 8px;
  }
  .soft,
  .basis,
  dt {
    color: var(--soft);
  }
  .basis {
    font-size: 13.5px;
  }
  .size {
    font-size: 25px;
    line-height: 1.25;
    letter-spacing: -0.06em;
    min-height: 36px;
    white-space: nowrap;
  }
  /* Last figures, not today's: pale in weight, still readable. */
  .stale :global(.figure) {
    font-weight: 400;
    color: var(--soft);
  }
  /* What was typed is not answered yet; where the answer is quick nothing flickers. */
  .awaits :global(.figure) {
    color: var(--soft);
    transition: color 0s 0.25s;
  }
  .stale .bars {
    opacity: 0.4;
  }
  dl {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 3px 10px;
    margin-top: 10px;
  }
  dd {
    text-align: right;
  }
  .amber {
    color: var(--amber);
  }
  .bars {
    display: flex;
    height: 20px;
    margin-top: 4px;
    background:
      repeating-linear-gradient(135deg, var(--amber-mark) 0 1.5px, transparent 1.5px 7px), var(--amber-pale);
  }
  .bars .rounded {
    background: var(--hair2);
  }
  .bars i {
    display: block;
    height: 100%;
    background: var(--ink);
    transition: width 0.2s;
  }
  hr {
    border: 0;
    border-top: 1px dashed var(--hair2);
    margin: 14px -20px;
  }
  .total {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
  }
  .total b {
    font-size: 31px;
    line-height: 1.2;
  }
  .first {
    color: var(--soft);
  }
  li {
    position: relative;
    padding-left: 22px;
    margin-top: 4px;
  }
  li::before {
    content: '';
    position: absolute;
    left: 2px;
    top: 6px;
    width: 10px;
    height: 10px;
    border: 1.5px solid var(--ink);
  }
  .stop::before {
    border-color: var(--stop);
    background: var(--stop);
  }
  .mind::before {
    border-color: var(--amber-mark);
    background: var(--amber-mark);
  }
  @media (max-width: 860px) {
    aside {
      grid-column: 1;
      grid-row: 4;
      margin-top: 16px;
      position: static;
    }
  }
</style>
