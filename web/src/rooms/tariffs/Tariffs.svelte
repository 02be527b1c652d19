<script lang="ts">
  // The carriers' tariffs: what each service is made of and what to look at again, tried with a size, versions kept.
  import { attempt } from '../../lib/attempt';
  import { shop } from '../../lib/shop.svelte';
  import { calls, sentence, type LineAnswer, type TariffRow } from '../../lib/api/client';
  import { toast } from '../../lib/toast.svelte';
  import Earlier from '../../lib/ui/Earlier.svelte';
  import ChangeTariff from './ChangeTariff.svelte';

  let rows = $state.raw<TariffRow[] | null>(null);
  let open = $state('');
  let changing = $state(false);
  let begun = $state('');
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
      rows = await calls.tariffs();
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

  /** A carrier that is not there yet begins with one small service, to be changed. */
  async function begin(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const name = begun.trim();
    if (!name) return;
    if (rows?.some((one) => one.carrier === name)) {
      trouble = `There is a tariff of ${name} already.`;
      return;
    }
    const service = {
      name: 'Parcel',
      zones: [{ from: '', to: ['0-9', 'A-Z'], zone: 'all', days: [2, 5] }],
      weight_step: shop.units === 'in' ? '1 lb' : '0.5 kg',
      charges: [{ kind: 'grid', zones: [], rows: [[shop.units === 'in' ? '5 lb' : '2 kg', '10.00']] }],
    };
    const currency = shop.view?.shop.currency ?? 'USD';
    const file = {
      format: 'fardo-tariff/1',
      carrier: name,
      currency,
      units: shop.units,
      services: [service],
    };
    await attempt(async () => {
      await calls.readTariff(JSON.stringify(file));
      await load(name);
      begun = '';
      changing = true;
    }, tell);
  }

  async function putAway(one: TariffRow): Promise<void> {
    await attempt(async () => {
      await (one.put_away ? calls.bringBackTariff(one.carrier) : calls.putAwayTariff(one.carrier));
      await load(one.carrier);
      if (!one.put_away)
        toast.show(`${one.carrier} is archived and no longer priced.`, async () => {
          await calls.bringBackTariff(one.carrier);
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

<svelte:head><title>Tariffs · Fardo</title></svelte:head>

<section class="room">
  <div class="head">
    <h1>Tariffs</h1>
    <button class="btn" onclick={() => file.click()}>Import tariff</button>
    <form class="new" onsubmit={(event) => void begin(event)}>
      <label for="new-carrier" class="sr-only">Name of a new carrier</label>
      <input id="new-carrier" class="field" maxlength="80" placeholder="a new carrier" bind:value={begun} />
      <button class="btn" disabled={!begun.trim()}>New tariff</button>
    </form>
    <input
      bind:this={file}
      id="tariff-file"
      type="file"
      accept=".json"
      aria-label="Tariff file to import"
      hidden
      onchange={() => void readIn()}
    />
  </div>
  <p class="says" class:no={trouble !== ''} role="status">{trouble}</p>
  {#if rows && row}
    <div class="cols">
      <ul class="carriers" aria-label="Carriers">
        {#each rows as one (one.carrier)}
          {@const again =
            one.findings.length + one.services.reduce((sum, service) => sum + service.findings.length, 0)}
          <li>
            <button class="carrier" class:on={one.carrier === row.carrier} onclick={() => show(one.carrier)}
              ><b>{one.carrier}</b><small
                >{one.services.length === 1 ? 'one service' : `${one.services.length} services`}, {one.currency}{one.put_away
                  ? ', archived'
                  : ''}{again ? `, ${again} to look at` : ''}</small
              ></button
            >
          </li>
        {/each}
      </ul>
      <div class="sheet one">
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
          <div class="bar">
            <h2>{row.carrier}</h2>
            <span class="soft"
              >version {row.revision}, prices in {row.currency}{row.rate
                ? `, at ${row.rate}`
                : row.known
                  ? ''
                  : ': no rate is set, so it is not asked'}</span
            >
            {#if row.over_the_wire}<span class="soft">live quotes too</span>{/if}
            <button class="btn" onclick={() => (changing = true)}>Change it</button>
            <a class="link" href="/api/tariffs/{encodeURIComponent(row.carrier)}/file" download
              >Export tariff</a
            >
            <button class="link" onclick={() => void putAway(row)}
              >{row.put_away ? 'Restore' : 'Archive'}</button
            >
          </div>
          {#each row.findings as finding (finding)}<p class="no">{finding}</p>{/each}
          <table>
            <thead><tr><th>Service</th><th>Zones</th><th>Charges</th><th>Warnings</th></tr></thead>
            <tbody>
              {#each row.services as service (service.name + service.programme + service.valid)}
                <tr>
                  <td
                    ><b>{service.name}</b><br /><span class="soft"
                      >{service.programme} {service.valid}{service.other_way ? ', another way' : ''}</span
                    ></td
                  >
                  <td>{service.zones.join(', ')}</td>
                  <td>{service.charges.join(', ')}</td>
                  <td
                    >{#each service.findings as finding (finding)}<span class="no">{finding}<br /></span
                      >{:else}<span class="soft">nothing</span>{/each}</td
                  >
                </tr>
              {/each}
            </tbody>
          </table>
          <form onsubmit={(event) => void tryOut(event)} aria-label="Try a size">
            <label
              >Try a size <input
                id="try-size"
                class="field figure"
                maxlength="80"
                bind:value={trial.size}
              /></label
            >
            <label
              >weight <input
                id="try-weight"
                class="field figure"
                maxlength="40"
                bind:value={trial.weight}
              /></label
            >
            <label>to <input id="try-to" class="field figure" maxlength="20" bind:value={trial.to} /></label>
            <label class="home"><input type="checkbox" bind:checked={trial.home} /> a home</label>
            <label class="home"
              ><input type="checkbox" id="try-soft" bind:checked={trial.soft} /> soft pack</label
            >
            {#if trial.soft}
              <label
                >flat <input
                  id="try-flat"
                  class="field figure"
                  maxlength="80"
                  placeholder="from its size"
                  bind:value={trial.flat}
                /></label
              >
            {/if}
            <button class="btn btn-main" type="submit">Ask</button>
          </form>
          <div class="tried" role="status">
            {#if wrong}<p class="no">{wrong}</p>{/if}
            {#each answer?.quotes ?? [] as quote (quote.service + quote.programme)}
              <p>
                <b class="figure">{quote.amount}</b>
                {quote.service}, {quote.programme}, billed as {quote.billed}:
                <span class="soft"
                  >{quote.charges.map((charge) => `${charge.what} ${charge.amount}`).join(', ')}</span
                >
              </p>
            {/each}
            {#each answer?.refused ?? [] as no, n (n)}<p class="soft">{no.service}: {no.why}</p>{/each}
          </div>
          {#if row.versions.length > 1}
            {@const { carrier, revision, versions } = row}
            <p class="soft">
              Version {revision}
              <Earlier
                of={carrier}
                list={() => Promise.resolve(versions.map(([n, saved]) => ({ revision: n, saved_at: saved })))}
                then={(n) => calls.tariffThen(carrier, n)}
                back={(n) => backTo(row, n)}
              />
            </p>
          {/if}
        {/if}
      </div>
    </div>
  {:else if rows}
    <p class="soft">
      No carrier's tariff has been read in yet. A tariff file is JSON; the guide says what it may hold.
    </p>
  {/if}
</section>

<style>
  .room {
    padding: 18px 24px 60px;
  }
  .head {
    display: flex;
    gap: 24px;
    align-items: center;
  }
  .says {
    min-height: 24px;
  }
  .cols {
    display: grid;
    grid-template-columns: 280px minmax(0, 1fr);
    gap: 22px;
    align-items: start;
  }
  .carrier {
    display: block;
    width: 100%;
    text-align: left;
    padding: 9px 12px;
    border-top: 1px solid var(--hair);
  }
  .carrier.on {
    background: var(--sheet);
    box-shadow: inset 4px 0 0 var(--twine);
  }
  small {
    display: block;
  }
  small,
  .soft {
    font-size: 13.5px;
    color: var(--soft);
  }
  .no {
    color: var(--stop);
    font-size: 14px;
  }
  .one {
    padding: 12px 16px 14px;
  }
  .bar {
    display: flex;
    gap: 16px;
    align-items: baseline;
    flex-wrap: wrap;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    margin: 6px 0 12px;
    font-size: 14.5px;
  }
  td,
  th {
    padding: 5px 12px 5px 0;
    border-top: 1px solid var(--hair);
    text-align: left;
    vertical-align: top;
  }
  thead th {
    border: 0;
    font-size: 13.5px;
    color: var(--soft);
    font-weight: 450;
  }
  .new {
    border: 0;
    padding: 0;
    align-items: center;
  }
  .new .field {
    height: 38px;
  }
  form {
    display: flex;
    gap: 12px;
    align-items: end;
    flex-wrap: wrap;
    border-top: 1px solid var(--hair);
    padding-top: 10px;
  }
  label {
    font-size: 13.5px;
    color: var(--soft);
  }
  form .field {
    display: block;
    width: 150px;
    height: 36px;
  }
  .home {
    display: flex;
    gap: 6px;
    align-items: center;
    min-height: 36px;
  }
  .tried p {
    padding: 4px 0;
    border-top: 1px solid var(--hair);
  }
  .tried {
    margin: 10px 0;
  }
</style>
