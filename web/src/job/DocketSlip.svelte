<script lang="ts">
  // The docket: outside size, weight against billed weight, air, the total, what is missing, cautions.
  import { calls, sentence, type Schemas } from '../lib/api/client';
  import { inDays } from '../lib/days';
  import { toast } from '../lib/toast.svelte';
  import Changed from '../lib/ui/Changed.svelte';
  import Measured from '../lib/ui/Measured.svelte';
  import Why from '../lib/ui/Why.svelte';
  import { follow } from '../lib/router.svelte';
  import FaultList from './FaultList.svelte';
  import Missing from './Missing.svelte';
  import type { JobDesk } from './job.svelte';

  interface Props {
    desk: JobDesk;
    /** Before another page: what is typed is saved. */
    pack: (event: MouseEvent) => void;
  }
  let { desk, pack }: Props = $props();

  // On a narrow window the docket is a bar at the foot that opens over the page.
  let open = $state(false);
  let slip = $state<HTMLElement>();
  let foot = $state<HTMLButtonElement>();
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

  const boxIsChosen = $derived(
    desk.work.view?.knots.some((knot) => knot.name === 'box' && knot.state === 'tied') ?? false,
  );

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

<svelte:window
  onkeydown={(event) => {
    if (!open || event.key !== 'Escape') return;
    open = false;
    foot?.focus();
  }}
  onfocusin={({ target }) => {
    // What is gone to lies under it.
    if (target instanceof Node && !slip?.contains(target)) open = false;
  }}
/>

<aside
  bind:this={slip}
  class="docket border-hair2 bg-sheet max-narrow:fixed max-narrow:inset-x-0 max-narrow:bottom-0 max-narrow:top-auto max-narrow:z-20 max-narrow:m-0 max-narrow:min-h-0 max-narrow:border-x-0 max-narrow:border-b-0 max-narrow:p-0 sticky top-2 col-start-2 row-start-3 -mt-4 min-h-[420px] self-start border px-5 pt-10 pb-5.5"
  aria-label="Docket"
>
  <svg class="hole max-narrow:hidden" width="20" height="20" aria-hidden="true">
    <circle cx="10" cy="10" r="7" fill="var(--paper)" stroke="var(--hair2)" />
    <path d="M10 0v10" stroke="var(--twine)" stroke-width="3.2" />
  </svg>
  <button
    type="button"
    bind:this={foot}
    class="foot max-narrow:flex hidden min-h-13 w-full items-center gap-2 px-3.5 py-1.5 text-left"
    class:stale={desk.work.stale}
    aria-expanded={open}
    aria-controls="docket-body"
    onclick={() => (open = !open)}
  >
    <b class="font-title">Docket</b>
    <span class="figure text-small min-w-0 truncate tracking-[-0.06em]"
      >{docket?.outside?.figure.text ?? ''}</span
    >
    <b class="figure text-head ml-auto">{docket?.total ?? ''}</b>
    {#if missing.length || stop.length}<span class="text-stop text-small flex-none"
        >{missing.length + stop.length} to do</span
      >{/if}
    <span class="text-soft flex-none" aria-hidden="true">{open ? '▾' : '▴'}</span>
  </button>
  <div
    id="docket-body"
    class="max-narrow:max-h-[70vh] max-narrow:overflow-y-auto max-narrow:border-t max-narrow:border-hair max-narrow:px-3.5 max-narrow:pt-2.5 max-narrow:pb-4 {open
      ? ''
      : 'max-narrow:hidden'}"
  >
    {#if docket?.outside}
      <div class:stale={desk.work.stale} class:awaits={desk.work.awaits}>
        <p class="text-soft">Outside, as the carrier measures</p>
        <p class="size figure text-figure min-h-9 leading-[1.25] tracking-[-0.06em] whitespace-nowrap">
          <Why
            of="this outside size"
            why={docket.outside.figure.why}
            note={docket.outside.figure.exact ? '' : 'Shown rounded up.'}
          >
            <Changed text={docket.outside.figure.text}><Measured text={docket.outside.figure.text} /></Changed
            >
          </Why>
        </p>
        <p class="basis text-soft text-small">{docket.basis}</p>

        <dl class="mt-2.5 grid grid-cols-[1fr_auto] gap-x-2.5 gap-y-0.75">
          <dt class="text-soft">Actual weight</dt>
          <dd class="figure text-right">
            <Why of="this weight" why={docket.weight?.why}>
              <Changed text={docket.weight?.text ?? ''}><Measured text={docket.weight?.text ?? ''} /></Changed
              >
            </Why>
          </dd>
        </dl>
        {#if quote}
          <div
            class="bars mt-1 flex h-5 [background:repeating-linear-gradient(135deg,var(--amber-mark)_0_1.5px,transparent_1.5px_7px),var(--amber-pale)]"
            aria-hidden="true"
          >
            <i
              class="bg-ink block h-full [transition:width_0.2s]"
              style:width="{Math.min(quote.weight_share, 1) * 100}%"
            ></i><i
              class="bg-hair2 block h-full [transition:width_0.2s]"
              style:width="{quote.rounding_share * 100}%"
            ></i>
          </div>
          <dl class="mt-2.5 grid grid-cols-[1fr_auto] gap-x-2.5 gap-y-0.75">
            <dt class="text-soft">Billed weight</dt>
            <dd class="figure text-right">
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
              <dt class="text-soft">Other parcels, billed</dt>
              <dd class="figure text-right">{quote.beside.join(' + ')}</dd>
            {/if}
            {#if size}
              <dt class="text-soft">Share billed for size</dt>
              <dd class="figure text-amber text-right">{size} %</dd>
            {/if}
            {#if rounding}
              <dt class="text-soft">Share billed for rounding up</dt>
              <dd class="figure text-right">{rounding} %</dd>
            {/if}
            <dt class="text-soft">Air in the box</dt>
            <dd class="figure text-right">{docket.air_percent} %</dd>
          </dl>
        {/if}

        <hr class="border-t-hair2 -mx-5 my-3.5 border-t border-r-0 border-b-0 border-l-0 border-dashed" />
        {#if docket.total && quote}
          <p class="total flex items-baseline justify-between">
            <span>Total cost</span>
            <b class="figure text-sum leading-[1.2]">
              <Why of="this sum" why={docket.total_why}
                ><Changed text={docket.total}>{docket.total}</Changed></Why
              >
            </b>
          </p>
          <p class="text-soft">{quote.carrier} {quote.service}, {inDays(quote.days)}</p>
          {#if docket.note}<p class="text-soft">{docket.note}</p>{/if}
          {#if docket.sale}
            <dl class="mt-2 grid grid-cols-[1fr_auto] gap-x-2.5 gap-y-0.75" aria-label="The sale">
              <dt class="text-soft">
                {docket.sale.fees_known ? 'Left after fees and sending' : 'Left after sending, fees not set'}
              </dt>
              <dd class="figure text-right">{docket.sale.left}</dd>
              <dt class="text-soft">Postage to ask of the buyer</dt>
              <dd class="figure text-right">{docket.sale.postage_to_ask}</dd>
            </dl>
          {/if}
          <p class="trim text-amber text-note mt-1 min-h-5.25">
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
              <div class="savings text-note" role="group" aria-label="Savings found">
                {#each offered as saving (saving.says)}
                  <p class="border-t-hair border-t px-0 py-1">
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
          <p class="text-soft">{docket.note}</p>
          {#if docket.way_on === 'tariffs'}<a class="link" href="/tariffs" onclick={follow}>Begin a tariff</a
            >{/if}
        {/if}
      </div>
    {:else if desk.work.view}
      <p class="first text-soft">
        {#if docket?.note}{docket.note}{:else}
          {#if !(desk.work.view.problems.length > 1)}Enter length, width, height and weight. Box, billed
            weight and cost appear here as you type.{/if}
        {/if}
      </p>
    {/if}

    {#if desk.work.stale}
      <p class="text-soft mt-2">These figures are from before your last change, which is not complete.</p>
    {/if}

    <FaultList {desk} />

    {#if missing.length || cautions.length || stop.length}
      <hr class="border-t-hair2 -mx-5 my-3.5 border-t border-r-0 border-b-0 border-l-0 border-dashed" />
      <ul>
        {#each stop as why (why)}<li class="stop relative mt-1 pl-5.5"><b>Stop.</b> {why}</li>{/each}
        {#each cautions as caution (caution)}<li class="mind relative mt-1 pl-5.5">{caution}</li>{/each}
        <Missing {desk} />
      </ul>
    {/if}
    {#if boxIsChosen}
      <a class="btn btn-main mt-4 w-full justify-center" href="/jobs/{desk.id}/pack" onclick={pack}>Pack</a>
    {/if}
  </div>
  <p class="sr-only" role="status">
    {docket?.total && quote && !desk.work.stale ? `Billed ${quote.billed}, total ${docket.total}` : ''}
  </p>
</aside>

<style>
  @media (min-width: 861px) {
    .docket {
      clip-path: polygon(22px 0, calc(100% - 22px) 0, 100% 22px, 100% 100%, 0 100%, 0 22px);
    }
  }
  .hole {
    position: absolute;
    left: calc(50% - 10px);
    top: 8px;
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
</style>
