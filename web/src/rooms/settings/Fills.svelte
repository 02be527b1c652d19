<script lang="ts">
  // What boxes are filled with: the usual kind first, others by job and by place.
  import Choose from '../../lib/ui/Choose.svelte';
  import Cell from './Cell.svelte';
  import Field from '../../lib/ui/Field.svelte';
  import { number, text, type ListProps } from './words';
  import Remove from '../../lib/ui/Remove.svelte';

  let { d = $bindable(), wrong, touched }: ListProps = $props();

  type Fill = typeof d.fill;
  const FORMS: [NonNullable<Fill['form']>, string, string][] = [
    ['sheets', 'sheets, crumpled', 'a sheet'],
    ['pillows', 'air pillows', 'a pillow'],
    ['loose', 'loose, from a sack', 'a sack'],
    ['pads', 'pads, folded', 'a pad'],
    ['rolls', 'rolls along the edges', 'a roll'],
    ['block', 'board or an empty box', ''],
  ];
  const rows = $derived([
    { fill: d.fill, path: 'fill', id: 'fill-usual' },
    ...(d.fills ?? []).map((fill, n) => ({ fill, path: `fills[${n}]`, id: `fill-${n}` })),
  ]);

  function add(): void {
    const fill: Fill = { name: '', weight_per_litre: '10 g', price_per_100_litres: '0.00', form: 'sheets' };
    d.fills = [...(d.fills ?? []), fill];
    touched();
  }
  function drop(n: number): void {
    d.fills = (d.fills ?? []).filter((_, k) => k !== n);
    touched();
  }
</script>

<div class="part">
  <h2>Fill</h2>
  <div
    class="row heads text-soft text-small max-phone:hidden mb-1.5 grid grid-cols-[minmax(140px,2fr)_minmax(150px,2fr)_repeat(4,minmax(80px,1fr))_44px] items-center gap-2"
    aria-hidden="true"
  >
    <span>Name</span><span>Comes in</span><span>Litres, of one</span><span>Weight of a litre</span><span
      >Price of 100 litres, {d.currency}</span
    ><span>Litres left</span>
  </div>
  {#each rows as { fill, path, id }, n (id)}
    <div
      class="row max-phone:grid-cols-2 max-phone:mb-4 mb-1.5 grid grid-cols-[minmax(140px,2fr)_minmax(150px,2fr)_repeat(4,minmax(80px,1fr))_44px] items-center gap-2"
    >
      <Cell
        id="{id}-name"
        label={n ? `Name of fill ${n}` : 'Name of the usual fill'}
        measure={false}
        bind:value={() => fill.name, (v) => (fill.name = v)}
        oninput={touched}
        problem={wrong(`${path}.name`)}
      />
      <Choose
        labelled="unseen"
        label="What fill {n} comes in"
        bind:value={fill.form}
        change={touched}
        options={FORMS.map(([form, says]) => [form, says] as const)}
      />
      <Cell
        id="{id}-each"
        label="Litres of one of fill {n}"
        bind:value={() => String(fill.each_litres ?? ''), (v) => (fill.each_litres = number(v))}
        oninput={touched}
        problem={wrong(`${path}.each_litres`)}
      />
      <Cell
        id="{id}-weight"
        label="Weight of a litre of fill {n}"
        bind:value={() => text(fill.weight_per_litre, 'g'), (v) => (fill.weight_per_litre = v)}
        oninput={touched}
        problem={wrong(`${path}.weight_per_litre`)}
      />
      <Cell
        id="{id}-price"
        label="Price of 100 litres of fill {n}"
        bind:value={() => fill.price_per_100_litres, (v) => (fill.price_per_100_litres = v)}
        oninput={touched}
        problem={wrong(`${path}.price_per_100_litres`)}
      />
      <Cell
        id="{id}-left"
        label="Litres left of fill {n}"
        bind:value={() => String(fill.left ?? ''), (v) => (fill.left = number(v))}
        oninput={touched}
        problem={wrong(`${path}.left`)}
      />
      {#if n}
        <Remove of={fill.name || 'this fill'} go={() => drop(n - 1)} />
      {:else}<span class="text-soft text-small">usual</span>{/if}
    </div>
  {/each}
  <button type="button" class="btn" onclick={add}>Add a fill</button>
</div>

<div class="part">
  <h2>Tape</h2>
  <div class="max-phone:grid-cols-1 grid grid-cols-[repeat(3,minmax(0,220px))] gap-3">
    <Field
      id="tape-weight"
      label="Weight of a metre"
      measure
      takes="mass"
      note={false}
      bind:value={() => text(d.tape.weight_per_m, 'g'), (v) => (d.tape.weight_per_m = v)}
      oninput={touched}
      problem={wrong('tape.weight_per_m')}
      faults="shop-faults"
    />
    <Field
      id="tape-price"
      label="Price of 100 m, {d.currency}"
      measure
      note={false}
      bind:value={d.tape.price_per_100_m}
      oninput={touched}
      problem={wrong('tape.price_per_100_m')}
      faults="shop-faults"
    />
    <Field
      id="tape-left"
      label="Metres left"
      measure
      note={false}
      bind:value={() => String(d.tape.left ?? ''), (v) => (d.tape.left = number(v))}
      oninput={touched}
      problem={wrong('tape.left')}
      faults="shop-faults"
    />
  </div>
</div>
