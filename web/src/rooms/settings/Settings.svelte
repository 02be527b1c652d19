<script lang="ts">
  // What the shop starts every job from. Everything is its own to measure and change.
  import RoomHead from '../../lib/ui/RoomHead.svelte';
  import Choose from '../../lib/ui/Choose.svelte';
  import { attempt } from '../../lib/attempt';
  import { calls, Refusal, sentence, type ShopFile } from '../../lib/api/client';
  import { follow } from '../../lib/router.svelte';
  import { shop } from '../../lib/shop.svelte';
  import { tryMadeUp } from '../../lib/madeUp';
  import { toast } from '../../lib/toast.svelte';
  import Earlier from '../../lib/ui/Earlier.svelte';
  import Field from '../../lib/ui/Field.svelte';
  import { number, PAPERS, text, UNITS } from './words';
  import Setting from './Setting.svelte';
  import Address from './Address.svelte';
  import Boards from './Boards.svelte';
  import Boxes from './Boxes.svelte';
  import Designs from './Designs.svelte';
  import Fills from './Fills.svelte';
  import Keeping from './Keeping.svelte';
  import OnNetwork from './OnNetwork.svelte';
  import Mailers from './Mailers.svelte';
  import Channels from './Channels.svelte';
  import HouseRules from './HouseRules.svelte';
  import Trusted from './Trusted.svelte';
  import Wires from './Wires.svelte';
  import Wraps from './Wraps.svelte';

  const HABITS = [
    ['gap', 'Gap on every side'],
    ['kerf', 'Saw kerf'],
    ['offcut_least', 'Keep off-cuts from'],
  ] as const;

  let draft = $state<ShopFile | null>(null);
  let revision = 0;
  let saved = $state('');
  let trouble = $state('');
  let field = $state('');

  async function load(): Promise<void> {
    await attempt(
      async () => {
        await shop.load();
      },
      (said) => (trouble = said),
    );
    if (!shop.view) return;
    draft = structuredClone($state.snapshot(shop.view.shop));
    revision = shop.view.revision;
  }
  void load();

  async function save(): Promise<void> {
    if (!draft) return;
    try {
      const view = await calls.changeShop({ revision, shop: $state.snapshot(draft) });
      shop.view = view;
      revision = view.revision;
      trouble = field = '';
      saved = 'Saved. Jobs are worked out anew from these.';
    } catch (fault) {
      saved = '';
      trouble = sentence(fault);
      const refusal = fault instanceof Refusal ? fault : null;
      field = refusal?.field.replace(/^shop\./, '') ?? '';
      if (refusal?.newestRevision) {
        revision = refusal.newestRevision;
        trouble =
          'The settings were changed in another window since you opened them. Save again to put yours in their place.';
      }
    }
  }

  async function restore(revision: number): Promise<void> {
    const before = shop.view?.revision ?? 0;
    shop.view = await calls.shopBack(revision);
    await load();
    toast.show(`Version ${revision} of the settings is back.`, async () => {
      await calls.shopBack(before);
      await load();
    });
  }

  const wrong = (name: string) => (field === name ? trouble : '');
  const touched = () => (saved = '');
</script>

<section class="room mx-auto my-0 max-w-[1120px] px-6 pt-5.5 pb-15">
  <RoomHead title="Settings">
    <span class="ml-auto flex gap-5"
      ><a class="link" href="/start" onclick={follow}>Set up step by step</a>
      {#if shop.view?.made_up === 'offered'}<button class="link" type="button" onclick={tryMadeUp}
          >Try the made-up shop</button
        >{/if}
      <Earlier of="the settings" list={calls.shopRevisions} then={calls.shopThen} back={restore} /></span
    >
  </RoomHead>
  {#if draft}
    {@const d = draft}
    <form
      onsubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <div class="part mt-4.5">
        <h2>The shop</h2>
        <div class="max-phone:grid-cols-1 mt-1.5 grid grid-cols-3 gap-x-4.5 gap-y-3">
          <Address bind:d={draft} {wrong} {touched} />
          <Field
            id="shop-printer"
            label="Label printer, address"
            problem={wrong('printer')}
            faults="shop-faults"
            note={false}
            most={200}
            bind:value={() => d.printer ?? '', (v) => (d.printer = v)}
            oninput={touched}
          />
          <Field
            id="shop-copies"
            label="Daily copies kept, days"
            measure
            problem={wrong('copies_days')}
            faults="shop-faults"
            note={false}
            bind:value={() => String(d.copies_days ?? ''), (v) => (d.copies_days = number(v) ?? 30)}
            oninput={touched}
          />
          <Choose label="Units" bind:value={d.units} change={touched} options={UNITS} />
          <Choose label="Paper" bind:value={d.paper} change={touched} options={PAPERS} />
          <Field
            id="shop-labour"
            problem={wrong('labour_per_hour')}
            faults="shop-faults"
            label="Labour rate per hour, {d.currency}"
            measure
            note={false}
            bind:value={d.labour_per_hour}
            oninput={touched}
          />
          {#each Object.keys(d.rates ?? {}) as code (code)}
            <Setting
              name="rate-{code}"
              path="rates.{code}"
              label="One {code} costs, {d.currency}"
              {wrong}
              {touched}
              bind:value={() => d.rates?.[code] ?? '', (v) => (d.rates = { ...d.rates, [code]: v })}
            />
          {/each}
        </div>
      </div>
      <div class="part mt-4.5">
        <h2>Defaults</h2>
        <div class="max-phone:grid-cols-1 mt-1.5 grid grid-cols-3 gap-x-4.5 gap-y-3">
          {#each HABITS as [name, label] (name)}
            <Setting
              {name}
              {label}
              {wrong}
              {touched}
              bind:value={() => text(d[name]), (v) => (d[name] = v)}
            />
          {/each}
          {#each shop.view?.allowances ?? [] as one (one.name)}
            <Setting
              name={one.name}
              path="allowances.{one.name}"
              label={one.title}
              {wrong}
              {touched}
              bind:value={
                () => text(d.allowances?.[one.name] ?? one.starts),
                (v) => (d.allowances = { ...d.allowances, [one.name]: v })
              }
            />
          {/each}
          <Choose
            label="Fence step"
            bind:value={d.fence_step}
            change={touched}
            options={['1/16 in', '1/8 in', '1 mm', '2 mm']}
          />
          <Choose
            label="Default board"
            bind:value={d.default_board}
            change={touched}
            options={d.boards.map((board) => board.code)}
          />
        </div>
      </div>
      <Channels {d} {wrong} {touched} />
      <HouseRules {d} {wrong} {touched} />
      <Trusted {d} {wrong} {touched} />
      <Wraps {d} {wrong} {touched} />
      <Fills {d} {wrong} {touched} />
      <Boxes {d} {wrong} {touched} />
      <Mailers {d} {wrong} {touched} />
      <Wires {d} {wrong} {touched} />
      <Boards {d} {wrong} {touched} />
      <Designs {d} {wrong} {touched} />
      <div class="end mt-5 flex items-center gap-4.5">
        <button class="btn btn-main" type="submit">Save the settings</button>
        <p id="shop-faults" role="status" class:trouble={trouble !== ''}>{trouble || saved}</p>
      </div>
    </form>
    <OnNetwork />
    <Keeping restored={() => void load()} />
    <p class="text-soft text-note mt-6">
      <a class="link" href="/notices.txt" target="_blank" rel="noopener"
        >Licences of the fonts and scripts used</a
      >
    </p>
    <p class="carriers text-soft mt-6">Carriers: {shop.view?.carriers.join(', ') || 'none yet'}.</p>
  {:else if trouble}
    <p class="trouble">{trouble}</p>
  {/if}
</section>

<style>
  /* The lists below: boxes, mailers, boards, designs. */
  .room :global(.part ~ .part) {
    margin-top: 26px;
  }
  .trouble {
    color: var(--stop);
  }
</style>
