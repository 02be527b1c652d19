<script lang="ts">
  // Carriers with live quotes, each beside what its tariff comes to, line by line. Whatever a carrier does, the rest
  // of the screen does not wait for it.
  import { onDestroy } from 'svelte';
  import { attempt, Newest } from '../../lib/attempt';
  import type { JobDesk } from '../../job/job.svelte';
  import { calls, sentence, type LiveQuote, type LiveQuotes, type TrackingSaid } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import { toast } from '../../lib/toast.svelte';

  interface Props {
    desk: JobDesk;
    way: string;
  }
  let { desk, way }: Props = $props();

  const LOOK_AGAIN_MS = 3000;
  let said = $state.raw<LiveQuotes[] | null>(null);
  let asking = $state(false);
  let trouble = $state('');
  const tell = (said: string) => {
    trouble = said;
  };
  let askedAbout = $state('');
  let buying = $state('');
  let where = $state.raw<TrackingSaid | null>(null);
  const newest = new Newest();

  const wires = $derived(shop.view?.shop.wires ?? []);
  /** What the answers hang on: when it changes, they are old. */
  const about = $derived(
    JSON.stringify([
      way,
      desk.work.ways.find((one) => one.way === way)?.outside.mm,
      desk.job.ship,
      desk.job.value,
      desk.job.beside,
    ]),
  );
  const old = $derived(said !== null && askedAbout !== about);

  async function ask(): Promise<void> {
    asking = true;
    const question = about;
    await newest.ask(
      (signal) => calls.ask({ job: desk.job, way, id: desk.id }, signal),
      (found) => {
        said = found;
        askedAbout = question;
        trouble = '';
      },
      (fault) => (trouble = sentence(fault)),
    );
    asking = newest.waits;
  }
  onDestroy(() => newest.stop());

  async function buy(carrier: string, quote: LiveQuote): Promise<void> {
    buying = quote.quote;
    await attempt(async () => {
      const { service, programme, asks, currency } = quote;
      await desk.label.buy({ carrier, service, programme, quote: quote.quote, amount: asks, currency });
      if (desk.label.view?.state === 'sold')
        toast.show(
          `A label of ${carrier} ${service} is bought for ${desk.label.view.amount} ${desk.label.view.currency}.`,
        );
      trouble = '';
    }, tell);
    buying = '';
  }

  async function track(): Promise<void> {
    await attempt(async () => {
      where = await calls.tracking(desk.id);
      trouble = '';
    }, tell);
  }
  const last = $derived(where?.events?.at(-1));
  const label = $derived(desk.label.view);
  const pending = $derived(label?.state === 'asking' || label?.state === 'voiding');
  const live = $derived(pending || label?.state === 'sold');

  /** Voids the label or calls the purchase off, or asks about it at once. */
  async function settle(deed: () => Promise<void>): Promise<void> {
    buying = 'settling';
    await attempt(async () => {
      await deed();
      trouble = '';
      where = null;
    }, tell);
    buying = '';
  }
  // The shop asks by itself until its carrier has said; the page looks what it knows.
  $effect(() => {
    if (!pending) return;
    const timer = setInterval(() => void desk.label.look().catch(() => undefined), LOOK_AGAIN_MS);
    return () => clearInterval(timer);
  });
</script>

{#if wires.length}
  <section class="sheet mx-0 my-4 px-4 pt-2.5 pb-3.5" aria-label="Live quotes">
    <div class="flex items-center justify-between gap-4">
      <h2>
        Live {wires.length > 1 ? 'quotes' : 'quote'} from {wires.map((wire) => wire.carrier).join(' and ')}
      </h2>
      <button class="btn" disabled={asking} onclick={() => void ask()}
        >{asking ? 'Waiting for the carrier…' : said ? 'Get it again' : 'Get live quote'}</button
      >
    </div>
    <div role="status" class="status text-note min-h-5.5" class:no={trouble !== ''}>
      {#if trouble}{trouble}{:else if old}The parcel has changed since it was asked.{/if}
    </div>
    {#if label && label.state !== 'void' && label.state !== 'unsold'}
      <div class="label border-l-twine mb-2.5 grid gap-0.5 border-l-4 pl-2.5" class:pending>
        <p>
          {#if label.state === 'sold'}Label bought:
            <b class="figure">{label.tracking}</b>,{:else}<b
              >{label.state === 'asking' ? 'Label: unknown, asking' : 'Label: being voided'}</b
            >,{/if}
          {label.carrier}
          {label.service}, <span class="figure">{label.amount} {label.currency}</span>
        </p>
        {#if label.says}<p role="status">{label.says}</p>{/if}
        {#if label.state === 'asking'}<p class="text-soft text-note">
            No other label can be bought for this job until {label.carrier} has said.
          </p>{/if}
        <p class="flex gap-4.5">
          {#if label.state === 'sold'}
            <button class="link" onclick={() => void track()}>Track it</button>
          {:else}
            <button class="link" disabled={buying !== ''} onclick={() => void settle(() => desk.label.ask())}
              >Ask now</button
            >
          {/if}
          {#if label.state !== 'voiding'}
            <button class="link" disabled={buying !== ''} onclick={() => void settle(() => desk.label.void())}
              >{label.state === 'sold' ? 'Void the label' : 'Call the purchase off'}</button
            >
          {/if}
          {#if where}<span role="status"
              >{last ? `${last.what}, ${last.at.slice(0, 16).replace('T', ' ')}` : where.state}</span
            >{/if}
        </p>
      </div>
    {/if}
    {#each said ?? [] as one (one.carrier)}
      {#if one.state !== 'answered'}
        <p class="no">
          {one.carrier}
          {one.says}{one.tries > 1 ? `, asked ${one.tries} times` : ''}. The prices above are by its tariff.
        </p>
      {:else}
        {#if one.says}<p class="no">{one.carrier} {one.says}.</p>{/if}
        <div class="grid grid-cols-[repeat(auto-fill,minmax(270px,1fr))] gap-x-6.5 gap-y-3" class:old>
          {#each one.quotes as quote (quote.quote)}
            <article
              class="grid content-start justify-items-start gap-2"
              aria-label="{one.carrier} {quote.service}, {quote.programme}, live quote"
            >
              <h3 class="font-title">
                {quote.service} <span class="text-soft text-note">{quote.programme}</span>
              </h3>
              <table class="w-full border-collapse">
                <thead
                  ><tr
                    ><td class="border-0 py-0.5 pr-0 pl-2.5 text-right"></td><th
                      class="border-0 py-0.5 pr-0 pl-2.5 text-right"
                      scope="col">live quote</th
                    ><th class="border-0 py-0.5 pr-0 pl-2.5 text-right" scope="col">by its tariff</th></tr
                  ></thead
                >
                <tbody>
                  {#each quote.lines as line (line.what)}
                    <tr class:differs={line.differs}>
                      <th class="border-t-hair text-ink border-t px-0 py-0.5 text-left" scope="row"
                        >{line.what}</th
                      ><td class="figure border-t-hair border-t py-0.5 pr-0 pl-2.5 text-right"
                        >{line.theirs ?? '–'}</td
                      ><td class="figure border-t-hair border-t py-0.5 pr-0 pl-2.5 text-right"
                        >{line.ours ?? '–'}</td
                      >
                    </tr>
                  {/each}
                  <tr class="sum" class:differs={quote.more !== ''}
                    ><th class="border-t-hair font-title text-ink border-t px-0 py-0.5 text-left" scope="row"
                      >{quote.more ? `total, ${quote.more}` : 'total, the same'}</th
                    ><td class="figure border-t-hair font-title border-t py-0.5 pr-0 pl-2.5 text-right"
                      >{quote.amount}</td
                    ><td class="figure border-t-hair font-title border-t py-0.5 pr-0 pl-2.5 text-right"
                      >{quote.ours ?? '–'}</td
                    ></tr
                  >
                </tbody>
              </table>
              {#if !live}
                <button
                  class="btn"
                  disabled={buying !== '' || old}
                  onclick={() => void buy(one.carrier, quote)}
                  >{buying === quote.quote
                    ? 'Buying…'
                    : `Buy its label, ${quote.asks} ${quote.currency}`}</button
                >
              {/if}
            </article>
          {/each}
        </div>
        {#each one.refused as no (no.service + no.programme)}
          <p class="text-soft text-note">
            {no.service}, {no.programme}: {no.why}{no.ours ? `; its tariff comes to ${no.ours}` : ''}
          </p>
        {/each}
      {/if}
    {/each}
  </section>
{/if}

<style>
  .no {
    color: var(--stop);
  }

  .label.pending {
    border-color: var(--amber);
  }

  .old {
    opacity: 0.75;
  }

  .differs {
    background: color-mix(in srgb, var(--amber) 16%, transparent);
  }
</style>
