<script lang="ts">
  // The carriers' tariffs: what each service is made of and what to look at again, tried with a size, versions kept.
  import RoomHead from '../../lib/ui/RoomHead.svelte';
  import { attempt } from '../../lib/attempt';
  import { calls, sentence, type FuelRow, type LineAnswer, type TariffRow } from '../../lib/api/client';
  import type { Difference } from '../../lib/differences';
  import { toast } from '../../lib/toast.svelte';
  import Earlier from '../../lib/ui/Earlier.svelte';
  import BeginTariff from './BeginTariff.svelte';
  import ChangeTariff from './ChangeTariff.svelte';
  import ComingPrices from './ComingPrices.svelte';
  import CompareTariff from './CompareTariff.svelte';
  import FuelRates from './FuelRates.svelte';
  import OwnPrices from './OwnPrices.svelte';
  import ServiceList from './ServiceList.svelte';
  import Tick from '../../lib/ui/Tick.svelte';
  import Field from '../../lib/ui/Field.svelte';

  let rows = $state.raw<TariffRow[] | null>(null);
  let fuel = $state.raw<FuelRow[]>([]);
  let open = $state('');
  let changing = $state(false);
  let trouble = $state('');
  const tell = (said: string) => {
    trouble = said;
  };
  let file: HTMLInputElement;
  let trial = $state({
    size: '24 x 12 x 8 in',
    weight: '9 lb',
    from: '',
    to: '73120',
    home: false,
    soft: false,
    flat: '',
  });
  let answer = $state.raw<LineAnswer | null>(null);
  let wrong = $state('');

  const row = $derived(rows?.find((one) => one.carrier === open) ?? rows?.[0]);

  async function load(carrier = open): Promise<void> {
    await attempt(async () => {
      [rows, fuel] = await Promise.all([calls.tariffs(), calls.fuel()]);
      open = carrier || rows[0]?.carrier || '';
      trouble = '';
    }, tell);
  }
  void load();

  function show(carrier: string): void {
    open = carrier;
    changing = false;
    answer = null;
    wrong = '';
  }

  async function readIn(): Promise<void> {
    const chosen = file.files?.[0];
    if (!chosen) return;
    try {
      const found = await calls.readTariff(await chosen.text());
      await load(found.carrier);
      toast.show(`${found.carrier} is read in, version ${found.revision}.`);
    } catch (fault) {
      trouble = `${chosen.name}: ${sentence(fault)}`;
    }
    file.value = '';
  }

  async function archive(one: TariffRow): Promise<void> {
    await attempt(async () => {
      await (one.archived ? calls.restoreTariff(one.carrier) : calls.archiveTariff(one.carrier));
      await load(one.carrier);
      if (!one.archived)
        toast.show(`${one.carrier} is archived and no longer priced.`, async () => {
          await calls.restoreTariff(one.carrier);
          await load(one.carrier);
        });
    }, tell);
  }

  async function backTo(one: TariffRow, revision: number): Promise<void> {
    await attempt(async () => {
      await calls.tariffVersion(one.carrier, revision);
      await load(one.carrier);
      toast.show(`Version ${revision} of ${one.carrier} is the newest again.`);
    }, tell);
  }

  async function inWords(carrier: string, was: number, now: number): Promise<Difference[]> {
    const sides = { was: { revision: was }, now: { revision: now }, parcels: '', sent: false, from: '' };
    const told = await calls.compareTariffs(carrier, sides);
    return told.differences.map((one) => ({ path: one.of, then: one.was, now: one.now }));
  }

  async function tryOut(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (!row) return;
    try {
      answer = await calls.tryTariff(row.carrier, trial);
      wrong = '';
    } catch (fault) {
      answer = null;
      wrong = sentence(fault);
    }
  }
</script>

<section class="room px-6 pt-4.5 pb-15">
  <RoomHead title="Tariffs">
    <button class="btn" onclick={() => file.click()}>Import tariff</button>
    <input
      bind:this={file}
      id="tariff-file"
      type="file"
      accept=".json"
      aria-label="Tariff file to import"
      hidden
      onchange={() => void readIn()}
    />
  </RoomHead>
  <p class="says min-h-6" class:no={trouble !== ''} role="status">{trouble}</p>
  <details class="mb-4" open={rows?.length === 0}>
    <summary class="text-soft text-note mb-2 cursor-pointer">Begin a tariff, or add a service to one</summary>
    <BeginTariff begun={(one) => void load(one.carrier)} />
  </details>
  <FuelRates rows={fuel} changed={(carrier) => void load(carrier)} />
  {#if rows && row}
    <div class="max-narrow:grid-cols-1 grid grid-cols-[280px_minmax(0,1fr)] items-start gap-5.5">
      <ul class="carriers" aria-label="Carriers">
        {#each rows as one (one.carrier)}
          {@const again =
            one.findings.length + one.services.reduce((sum, service) => sum + service.findings.length, 0)}
          <li>
            <button
              class="carrier border-t-hair block w-full border-t px-3 py-2.25 text-left"
              class:on={one.carrier === row.carrier}
              onclick={() => show(one.carrier)}
              ><b>{one.carrier}</b><small class="text-soft text-small block"
                >{one.services.length === 1 ? 'one service' : `${one.services.length} services`}, {one.currency}{one.archived
                  ? ', archived'
                  : ''}{again ? `, ${again} to look at` : ''}</small
              ></button
            >
          </li>
        {/each}
      </ul>
      <div class="sheet one px-4 pt-3 pb-3.5">
        {#if changing}
          {#key row.carrier}
            <ChangeTariff
              carrier={row.carrier}
              kept={(found) => {
                void load(found.carrier);
                changing = false;
              }}
              close={() => (changing = false)}
            />
          {/key}
        {:else}
          <div class="bar flex flex-wrap items-baseline gap-4">
            <h2>{row.carrier}</h2>
            <span class="text-soft text-small"
              >version {row.revision}, prices in {row.currency}{row.rate
                ? `, at ${row.rate}`
                : row.known
                  ? ''
                  : ': no rate is set, so it is not asked'}</span
            >
            {#if row.over_the_wire}<span class="text-soft text-small">live quotes too</span>{/if}
            <button class="btn" onclick={() => (changing = true)}>Change it</button>
            <ComingPrices {row} kept={(one) => void load(one.carrier)} />
            <a class="link" href="/api/tariffs/{encodeURIComponent(row.carrier)}/file" download
              >Export tariff</a
            >
            <button class="link" onclick={() => void archive(row)}
              >{row.archived ? 'Restore' : 'Archive'}</button
            >
          </div>
          {#each row.findings as finding (finding)}<p class="no">{finding}</p>{/each}
          {#each row.services as service, n (service.name + service.programme + service.valid)}
            {#if service.placeholder}
              <div class="my-3">
                {#if service.takes}
                  <OwnPrices
                    carrier={row.carrier}
                    service={n}
                    name={service.name}
                    takes={service.takes}
                    kept={(one) => void load(one.carrier)}
                  />
                {:else}
                  <p class="border-l-amber-mark border-l-4 py-1 pl-4">
                    <b>{service.name}</b>: placeholder prices. <em>Change it</em> takes the shop's own; untick
                    <em>placeholder prices</em> there.
                  </p>
                {/if}
              </div>
            {/if}
          {/each}
          <ServiceList services={row.services} />
          <form
            class="border-t-hair mt-3 flex flex-wrap items-end gap-3 border-t pt-2.5"
            onsubmit={(event) => void tryOut(event)}
            aria-label="Try a size"
          >
            <div class="w-48">
              <Field
                id="try-size"
                label="Try a size"
                note={false}
                measure
                most={80}
                bind:value={trial.size}
              />
            </div>
            <div class="w-37.5">
              <Field
                id="try-weight"
                label="Weight"
                note={false}
                measure
                most={40}
                bind:value={trial.weight}
              />
            </div>
            <div class="w-37.5">
              <Field
                id="try-to"
                label="Destination postcode"
                note={false}
                measure
                most={20}
                bind:value={trial.to}
              />
            </div>
            <Tick bind:checked={trial.home}>Residential address</Tick>
            <Tick id="try-soft" bind:checked={trial.soft}>Soft pack</Tick>
            {#if trial.soft}
              <div class="w-37.5">
                <Field
                  id="try-flat"
                  label="Flat size"
                  note={false}
                  measure
                  most={80}
                  placeholder="from its size"
                  bind:value={trial.flat}
                />
              </div>
            {/if}
            <button class="btn btn-main" type="submit">Ask</button>
          </form>
          <div class="tried mx-0 my-2.5" role="status">
            {#if wrong}<p class="no border-t-hair border-t px-0 py-1">{wrong}</p>{/if}
            {#each answer?.quotes ?? [] as quote (quote.service + quote.programme)}
              <p class="border-t-hair border-t px-0 py-1">
                <b class="figure">{quote.amount}</b>
                {quote.service}, {quote.programme}, billed as {quote.billed}:
                <span class="text-soft text-small"
                  >{quote.charges.map((charge) => `${charge.what} ${charge.amount}`).join(', ')}</span
                >
              </p>
            {/each}
            {#each answer?.refused ?? [] as no, n (n)}<p
                class="text-soft border-t-hair text-small border-t px-0 py-1"
              >
                {no.service}: {no.why}
              </p>{/each}
          </div>
          {#key row.carrier}<CompareTariff {row} />{/key}
          {#if row.versions.length > 1}
            {@const { carrier, revision, versions } = row}
            <p class="text-soft text-small">
              Version {revision}
              <Earlier
                of={carrier}
                list={() => Promise.resolve(versions.map(([n, saved]) => ({ revision: n, saved_at: saved })))}
                then={(n) => calls.tariffThen(carrier, n)}
                differ={(was, now) => inWords(carrier, was, now)}
                back={(n) => backTo(row, n)}
              />
            </p>
          {/if}
        {/if}
      </div>
    </div>
  {:else if rows}
    <p class="text-soft text-small">
      No carrier's tariff is here yet: begin one above by how the carrier prices, or import a tariff file.
    </p>
  {/if}
</section>

<style>
  .carrier.on {
    background: var(--sheet);
    box-shadow: inset 4px 0 0 var(--twine);
  }

  .no {
    color: var(--stop);
    font-size: var(--text-note);
  }
</style>
