<script lang="ts">
  // The first start of a shop: a screen for each thing it must know, each to be skipped and changed later.
  import Lines from '../../lib/ui/Lines.svelte';
  import { tick } from 'svelte';
  import { attempt, start } from '../../lib/attempt';
  import { calls, Refusal, sentence, type ShopFile, type TariffRow } from '../../lib/api/client';
  import { follow } from '../../lib/router.svelte';
  import { shop } from '../../lib/shop.svelte';
  import { tryMadeUp } from '../../lib/madeUp';
  import Choose from '../../lib/ui/Choose.svelte';
  import Field from '../../lib/ui/Field.svelte';
  import Tick from '../../lib/ui/Tick.svelte';
  import { practise, startJob } from '../bench/start';
  import Address from '../settings/Address.svelte';
  import { PAPERS, text, UNITS } from '../settings/words';
  import BeginTariff from '../tariffs/BeginTariff.svelte';
  import OwnPrices from '../tariffs/OwnPrices.svelte';

  const STEPS = ['Units and money', 'Your shop', 'Board', 'Boxes and mailers', 'Carriers', 'Ready'] as const;
  const CURRENCIES = ['USD', 'EUR', 'GBP', 'CAD', 'AUD', 'NZD', 'CHF', 'SEK', 'NOK', 'DKK', 'PLN', 'CZK'];
  const TOOLS = [
    ['knife', 'knife and straightedge'],
    ['saw', 'table saw or panel saw'],
  ] as const;
  const AS_SET = [['', 'as it is set'], ...TOOLS] as const;

  let at = $state(0);
  let draft = $state<ShopFile | null>(null);
  let trouble = $state('');
  let field = $state('');
  let lines = $state('');
  let usual = $state(false);
  /** Nothing said leaves the kerf as it is set. */
  let tool = $state<'' | 'knife' | 'saw'>('');
  let boards = $state<Record<string, boolean>>({});
  let tariffs = $state.raw<TariffRow[]>([]);
  let heading: HTMLElement | undefined = $state();
  /** The shop as this screen found it, which is what skipping keeps. */
  let found: ShopFile | null = null;

  const isNew = $derived(shop.view?.revision === 0);
  const tell = (said: string) => {
    trouble = said;
  };

  async function open(): Promise<void> {
    await attempt(async () => {
      await shop.load();
      if (!shop.view) return;
      if (isNew) await begin(navigator.language === 'en-US' ? 'in' : 'cm');
      else take(shop.view.shop);
      tool = isNew ? 'knife' : '';
      tariffs = await calls.tariffs();
      await focusFirst();
    }, tell);
  }
  void open();

  function take(file: ShopFile): void {
    draft = structuredClone($state.snapshot(file) as ShopFile);
    found = structuredClone($state.snapshot(file) as ShopFile);
    boards = Object.fromEntries(file.boards.map((one) => [one.code, true]));
  }
  async function begin(units: 'in' | 'cm'): Promise<void> {
    take(await calls.startingShop(units));
  }

  const wrong = (name: string) => (field === name ? trouble : '');
  const touched = () => (trouble = field = '');

  /** What is said of board, boxes and mailers; what the open screen does not ask stays as it is. */
  const atHand = () => ({
    boards: at === 2 ? Object.keys(boards).filter((code) => boards[code]) : null,
    cut_with: (at === 2 && tool) || null,
    lines,
    usual_sizes: usual,
  });

  /** Saves the shop whole; the sentence stays where it cannot be saved. */
  async function save(file: ShopFile | null): Promise<boolean> {
    if (!file || !shop.view) return false;
    try {
      shop.view = await calls.changeShop({ revision: shop.view.revision, shop: file });
      take(shop.view.shop);
      touched();
      return true;
    } catch (fault) {
      trouble = sentence(fault);
      field = fault instanceof Refusal ? fault.field : '';
      return false;
    }
  }
  async function saved(): Promise<boolean> {
    const typed = $state.snapshot(draft) as ShopFile | null;
    const whole = typed && (await attempt(() => calls.atHand({ shop: typed, at_hand: atHand() }), tell));
    if (!whole || !(await save(whole))) return false;
    lines = '';
    usual = false;
    return true;
  }

  async function go(to: number): Promise<void> {
    at = to;
    touched();
    await focusFirst();
    if (to === STEPS.length - 1) heading?.focus();
  }
  async function focusFirst(): Promise<void> {
    await tick();
    document
      .querySelector<HTMLElement>(
        '#start-fields input, #start-fields textarea, #start-fields [role=combobox]',
      )
      ?.focus();
  }
  const asks = $derived(at < 4);
  /** To another screen; what is typed on this one is saved first. */
  async function leave(to: number): Promise<void> {
    if (!asks || (await saved())) await go(to);
  }
  /** What is typed on this screen is dropped; a new shop is begun all the same. */
  async function skip(): Promise<void> {
    if (isNew) await save(found);
    else if (found) take(found);
    lines = '';
    usual = false;
    await go(at + 1);
  }

  function begun(row: TariffRow): void {
    tariffs = [...tariffs.filter((one) => one.carrier !== row.carrier), row];
    const open = row.services.findLastIndex((service) => service.placeholder && service.takes);
    start(async () => {
      await tick();
      document.getElementById(open < 0 ? 'start-on' : `own-table-${open}`)?.focus();
    });
  }
</script>

<section class="mx-auto max-w-[860px] px-6 pt-6 pb-15">
  <h1 tabindex="-1" bind:this={heading}>
    {at === STEPS.length - 1 ? 'The shop is ready' : 'Set up your shop'}
  </h1>
  <p class="text-soft mt-1">
    Every screen can be skipped and changed later under Settings and Tariffs.
    {#if at === 0 && shop.view?.made_up === 'offered'}
      To look around first: <button class="link" type="button" onclick={tryMadeUp}
        >Try it with the made-up shop</button
      >. Yours stays as it is.
    {/if}
  </p>
  <ol class="mt-4 mb-5 flex flex-wrap gap-x-5 gap-y-1">
    {#each STEPS as name, n (name)}
      <li>
        <button
          type="button"
          class="text-note px-0.5 py-1 {n === at
            ? 'border-b-twine font-title text-ink border-b-2'
            : 'text-soft'}"
          aria-current={n === at ? 'step' : undefined}
          onclick={() => start(() => leave(n))}>{n + 1}. {name}</button
        >
      </li>
    {/each}
  </ol>

  {#if draft}
    {@const d = draft}
    <form
      id="start-fields"
      onsubmit={(event) => {
        event.preventDefault();
        start(() => leave(at + 1));
      }}
    >
      {#if at === 0}
        <div class="max-phone:grid-cols-1 grid grid-cols-2 gap-4">
          <Choose
            id="start-units"
            label="Units"
            value={d.units ?? 'in'}
            change={(picked) => start(() => begin(picked))}
            disabled={!isNew}
            options={UNITS}
          />
          <Choose
            id="start-paper"
            label="Paper for prints"
            bind:value={() => d.paper ?? 'letter', (v) => (d.paper = v)}
            options={PAPERS}
          />
          <Choose
            id="start-currency"
            label="Currency"
            bind:value={d.currency}
            options={[...new Set([d.currency, ...CURRENCIES])]}
          />
          <Field
            id="start-labour"
            label="An hour of your work is worth, {d.currency}"
            measure
            note={false}
            bind:value={d.labour_per_hour}
            problem={wrong('labour_per_hour')}
          />
        </div>
      {:else if at === 1}
        <div class="max-phone:grid-cols-1 grid grid-cols-2 gap-4">
          <Address bind:d={draft} {wrong} {touched} />
          <Field
            id="start-country"
            label="Country, two letters"
            note={false}
            most={2}
            bind:value={() => d.country ?? '', (v) => (d.country = v.toUpperCase())}
            oninput={touched}
            problem={wrong('country')}
          />
        </div>
      {:else if at === 2}
        <fieldset>
          <legend class="text-soft text-small mb-1">Board at hand</legend>
          {#each d.boards as board (board.code)}
            <div class="border-t-hair flex flex-wrap items-center gap-x-5 gap-y-1 border-t py-1.5">
              <div class="w-60"><Tick bind:checked={boards[board.code]}>{board.name}</Tick></div>
              <div class="w-30">
                <Field
                  id="start-caliper-{board.code}"
                  label="Caliper of {board.code}"
                  measure
                  note={false}
                  bind:value={() => text(board.caliper), (v) => (board.caliper = v)}
                />
              </div>
              <p class="text-soft text-note">
                sheets {board.sheets?.map((one) => `${text(one.length)} x ${text(one.width)}`).join(', ')}
              </p>
            </div>
          {/each}
        </fieldset>
        <p class="text-soft text-note mt-1">
          Caliper is the thickness of the board: stack ten pieces, measure, divide by ten. Sheets are changed
          under Settings.
        </p>
        <div class="mt-3 max-w-80">
          <Choose id="start-tool" label="Cut with" bind:value={tool} options={isNew ? TOOLS : AS_SET} />
        </div>
      {:else if at === 3}
        <Lines
          id="start-lines"
          label="Boxes and mailers at hand, one a line: inside size, how many. Three sides are a box, two a mailer."
          rows={8}
          placeholder={d.units === 'in'
            ? '14 x 10 x 6, 25\nused, 20 x 16 x 12\npadded mailer, 9 1/2 x 12 1/2, 40, 0.45'
            : '35 x 25 x 15, 25\nused, 50 x 40 x 30\npadded mailer, 24 x 32, 40, 0.45'}
          bind:value={lines}
        />
        <p class="text-soft text-note mt-1">
          A line may also say a name, a price such as 1.20, and <em>used</em>. Columns copied from a
          spreadsheet read the same.
        </p>
        <Tick bind:checked={usual}>Add the usual sizes too, with counts to correct</Tick>
        {#if d.boxes?.length || d.mailers?.length}
          <p class="mt-2">
            {d.boxes?.length ?? 0} kinds of box and {d.mailers?.length ?? 0} of mailer are there.
          </p>
        {/if}
      {/if}
      {#if asks}
        <p class="text-stop mt-2 min-h-6" role="alert">{trouble}</p>
        <div class="mt-2 flex gap-3">
          <button class="btn btn-main" type="submit">Save and go on</button>
          <button class="btn" type="button" onclick={() => start(skip)}>Skip</button>
        </div>
      {/if}
    </form>
    {#if at === 4}
      <div id="start-fields">
        <p class="mb-3">
          How does your first carrier price? Its tariff begins with placeholder prices, marked on every total,
          until you paste its own.
        </p>
        <BeginTariff {begun} />
        {#each tariffs as row (row.carrier)}
          <h2 class="mt-4">{row.carrier}</h2>
          {#each row.services as service, n (service.name + service.programme + service.valid)}
            {#if service.placeholder && service.takes}
              <div class="mt-2">
                <OwnPrices
                  carrier={row.carrier}
                  service={n}
                  name={service.name}
                  takes={service.takes}
                  kept={begun}
                />
              </div>
            {:else}
              <p class="text-soft">{service.name}{service.placeholder ? ', placeholder prices' : ''}</p>
            {/if}
          {/each}
        {/each}
        <p class="text-stop mt-2 min-h-6" role="alert">{trouble}</p>
        <button class="btn btn-main" id="start-on" type="button" onclick={() => start(() => go(5))}
          >{tariffs.length ? 'Go on' : 'Skip'}</button
        >
      </div>
    {:else if at === 5}
      <p>
        Measure the goods, wrap them, choose a box and a service: the docket at the right has the price while
        you type.
      </p>
      <div class="mt-4 flex flex-wrap gap-3">
        <button class="btn btn-main" type="button" onclick={() => start(() => startJob(''))}
          >Start a job</button
        >
        <button class="btn" type="button" onclick={() => start(practise)}>Practise on a made-up reel</button>
        <a class="btn" href="/" onclick={follow}>To the bench</a>
      </div>
    {/if}
  {:else}
    <p class="text-stop" role="alert">{trouble}</p>
  {/if}
</section>
