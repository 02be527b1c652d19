<script lang="ts">
  // What the shop starts every job from. Everything is its own to measure and change.
  import { attempt } from '../../lib/attempt';
  import { calls, Refusal, sentence, type ShopFile } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import { toast } from '../../lib/toast.svelte';
  import Earlier from '../../lib/ui/Earlier.svelte';
  import Field from '../../lib/ui/Field.svelte';
  import { text } from './words';
  import Setting from './Setting.svelte';
  import Boards from './Boards.svelte';
  import Boxes from './Boxes.svelte';
  import Designs from './Designs.svelte';
  import Fills from './Fills.svelte';
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

  async function bringBack(revision: number): Promise<void> {
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

<svelte:head><title>Settings · Fardo</title></svelte:head>

<section class="room">
  <div class="head">
    <h1>Settings</h1>
    <Earlier of="the settings" list={calls.shopRevisions} then={calls.shopThen} back={bringBack} />
  </div>
  {#if draft}
    {@const d = draft}
    <form
      onsubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <div class="part">
        <h2>The shop</h2>
        <div class="grid">
          <Field id="shop-name" label="Name" note={false} bind:value={d.name} oninput={touched} />
          <Field id="shop-town" label="Town" note={false} bind:value={d.town} oninput={touched} />
          <Field
            id="shop-postcode"
            label="Postcode"
            bind:value={d.postcode}
            oninput={touched}
            problem={wrong('postcode')}
            note={false}
          />
          <label
            >Units<select class="field" bind:value={d.units} onchange={touched}
              ><option value="in">inches and pounds</option><option value="cm">centimetres and kilos</option
              ></select
            ></label
          >
          <label
            >Paper<select class="field" bind:value={d.paper} onchange={touched}
              ><option value="letter">Letter</option><option value="a4">A4</option></select
            ></label
          >
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
      <div class="part">
        <h2>Defaults</h2>
        <div class="grid">
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
          <label
            >Fence step<select class="field" bind:value={d.fence_step} onchange={touched}
              ><option>1/16 in</option><option>1/8 in</option><option>1 mm</option><option>2 mm</option
              ></select
            ></label
          >
          <label
            >Default board<select class="field" bind:value={d.default_board} onchange={touched}
              >{#each d.boards as board (board.code)}<option>{board.code}</option>{/each}</select
            ></label
          >
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
      <div class="end">
        <button class="btn btn-main" type="submit">Save the settings</button>
        <p id="shop-faults" role="status" class:trouble={trouble !== ''}>{trouble || saved}</p>
      </div>
    </form>
    <p class="carriers">Carriers: {shop.view?.carriers.join(', ') || 'none yet'}.</p>
  {:else if trouble}
    <p class="trouble">{trouble}</p>
  {/if}
</section>

<style>
  .head {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
  }
  .room {
    max-width: 1120px;
    margin: 0 auto;
    padding: 22px 24px 60px;
  }
  .part {
    margin-top: 18px;
  }
  /* The lists below: boxes, mailers, boards, designs. */
  .room :global(.part ~ .part) {
    margin-top: 26px;
  }
  .room :global(.row select) {
    height: 38px;
    margin: 0;
  }
  .room :global(.off) {
    min-height: 32px;
    color: var(--soft);
  }
  .grid {
    display: grid;
    grid-template-columns: repeat(3, minmax(0, 1fr));
    gap: 12px 18px;
    margin-top: 6px;
  }
  label {
    font-size: 13.5px;
    color: var(--soft);
  }
  select {
    display: block;
    margin-top: 2px;
    font-size: 15.5px;
    color: var(--ink);
  }
  .end {
    display: flex;
    gap: 18px;
    align-items: center;
    margin-top: 20px;
  }
  .trouble {
    color: var(--stop);
  }
  .carriers {
    margin-top: 24px;
    color: var(--soft);
  }
</style>
