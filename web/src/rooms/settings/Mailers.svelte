<script lang="ts">
  // Mailers and bags that are there, measured flat inside their seams; a carrier's own only go by that carrier.
  import Wide from '../../lib/ui/Wide.svelte';
  import Choose from '../../lib/ui/Choose.svelte';
  import { shop } from '../../lib/shop.svelte';
  import Cell from './Cell.svelte';
  import Setting from './Setting.svelte';
  import { text, type ListProps } from './words';
  import Remove from '../../lib/ui/Remove.svelte';

  let { d = $bindable(), wrong, touched }: ListProps = $props();

  function add(): void {
    const flat = {
      name: '',
      kind: 'padded' as const,
      width: '9 1/2 in',
      length: '12 1/2 in',
      wall: '3/16 in',
    };
    const rest = { weight: '35 g', price: '0.00', count: 1, carrier: '', thickest: null };
    d.mailers = [...(d.mailers ?? []), { ...flat, ...rest }];
    touched();
  }
  function drop(n: number): void {
    d.mailers = (d.mailers ?? []).filter((_, k) => k !== n);
    touched();
  }
</script>

<div class="part">
  <h2>Mailers and bags</h2>
  {#if d.soft}
    {@const soft = d.soft}
    <div class="max-phone:grid-cols-1 mb-1 grid grid-cols-[260px_360px] gap-x-4.5 gap-y-3">
      <Setting
        name="soft-heaviest"
        path="soft.heaviest"
        label="Heaviest goods in a bag or mailer"
        {wrong}
        {touched}
        bind:value={() => text(soft.heaviest, 'g'), (v) => (soft.heaviest = v)}
      />
      <Choose
        label="Least that goods bear, in a mailer without a box"
        bind:value={soft.fragility}
        change={touched}
        options={(shop.view?.fragilities ?? []).map((one) => [one.value, one.says] as const)}
      />
    </div>
    <p class="why text-soft text-note mb-2.5 max-w-[760px]">
      A bag takes only what does not break, wrapped. Hard edges punch through: such goods go in a closed box,
      or in a padded mailer. What must stay flat goes in a rigid mailer or between boards.
    </p>
  {/if}
  <Wide least="min-w-[880px]">
    <div
      class="row heads text-soft text-small max-phone:hidden mb-1.5 grid grid-cols-[minmax(110px,1.3fr)_92px_110px_112px_94px_76px_66px_62px_minmax(70px,1fr)_28px] items-center gap-1.5"
      aria-hidden="true"
    >
      <span>Name</span><span>Kind</span><span>Flat width</span><span>Flat length</span><span>Wall</span><span
        >Weighs</span
      ><span>Price, {d.currency}</span><span>In stock</span><span>Carrier, if it is a carrier's own</span>
    </div>
    {#each d.mailers ?? [] as one, n (one)}
      {@const path = `mailers[${n}]`}
      {@const of = `of mailer ${n + 1}`}
      <div
        class="row max-phone:grid-cols-2 max-phone:mb-4 mb-1.5 grid grid-cols-[minmax(110px,1.3fr)_92px_110px_112px_94px_76px_66px_62px_minmax(70px,1fr)_28px] items-center gap-1.5"
      >
        <Cell
          id="mailer-{n}-name"
          label="Name {of}"
          measure={false}
          bind:value={one.name}
          problem={wrong(`${path}.name`)}
          oninput={touched}
        />
        <Choose
          labelled="unseen"
          label="Kind {of}"
          bind:value={one.kind}
          change={touched}
          options={['flat', 'rigid', 'padded', 'bag']}
        />
        <Cell
          id="mailer-{n}-width"
          label="Flat width {of}"
          bind:value={() => text(one.width), (v) => (one.width = v)}
          problem={wrong(`${path}.width`)}
          oninput={touched}
        />
        <Cell
          id="mailer-{n}-length"
          label="Flat length {of}"
          bind:value={() => text(one.length), (v) => (one.length = v)}
          problem={wrong(`${path}.length`)}
          oninput={touched}
        />
        <Cell
          id="mailer-{n}-wall"
          label="Wall {of}"
          bind:value={() => text(one.wall), (v) => (one.wall = v)}
          problem={wrong(`${path}.wall`)}
          oninput={touched}
        />
        <Cell
          id="mailer-{n}-weight"
          label="Weight {of}"
          bind:value={() => text(one.weight, 'g'), (v) => (one.weight = v)}
          problem={wrong(`${path}.weight`)}
          oninput={touched}
        />
        <Cell
          id="mailer-{n}-price"
          label="Price {of}"
          bind:value={() => one.price ?? '', (v) => (one.price = v)}
          problem={wrong(`${path}.price`)}
          oninput={touched}
        />
        <Cell
          id="mailer-{n}-count"
          label="In stock {of}"
          bind:value={() => String(one.count ?? ''), (v) => (one.count = v as unknown as number)}
          problem={wrong(`${path}.count`)}
          oninput={touched}
        />
        <Cell
          id="mailer-{n}-carrier"
          label="Carrier {of}"
          measure={false}
          bind:value={() => one.carrier ?? '', (v) => (one.carrier = v)}
          problem={wrong(`${path}.carrier`)}
          oninput={touched}
        />
        <Remove of={one.name || 'this mailer'} go={() => drop(n)} />
      </div>
    {/each}
  </Wide>
  <button type="button" class="btn" onclick={add}>Add a mailer</button>
</div>
