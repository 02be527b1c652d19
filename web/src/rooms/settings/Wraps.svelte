<script lang="ts">
  // What the shop wraps with and how it is used to: schools, gaps by fragility, habits, materials with their figures.
  import Wide from '../../lib/ui/Wide.svelte';
  import Choose from '../../lib/ui/Choose.svelte';
  import { formOf } from '../../lib/shop.svelte';
  import Field from '../../lib/ui/Field.svelte';
  import { number, text, type ListProps } from './words';
  import Remove from '../../lib/ui/Remove.svelte';

  let { d = $bindable(), wrong, touched }: ListProps = $props();

  const SOLD: Record<string, string> = { m2: 'm²', m: 'm', litre: 'litre', each: 'piece' };

  function addHabit(): void {
    d.habits = [...(d.habits ?? []), { name: '', size: '6 x 4 x 1/8 in', weight: '1 oz' }];
    touched();
  }
  function dropHabit(n: number): void {
    d.habits = (d.habits ?? []).filter((_, k) => k !== n);
    touched();
  }
</script>

<div class="part mt-4.5">
  <h2 class="mb-1.5">Wrapping</h2>
  <div class="max-phone:grid-cols-[minmax(0,1fr)] max-phone:grid-cols-1 grid grid-cols-3 gap-3">
    <Choose
      label="Bubbles face"
      bind:value={d.bubbles}
      change={touched}
      options={[
        ['out', 'outwards, smooth side to the goods'],
        ['in', 'inwards, bubbles to the goods'],
      ]}
    />
    <Field
      id="shop-wrap-minutes"
      label="Minutes for a layer"
      measure
      note={false}
      bind:value={() => String(d.wrap_minutes ?? ''), (v) => (d.wrap_minutes = v as unknown as number)}
      oninput={touched}
      problem={wrong('wrap_minutes')}
      faults="shop-faults"
    />
    <Field
      id="shop-cushion"
      label="Cushion factor C of the fill"
      measure
      note={false}
      bind:value={() => String(d.cushion_factor ?? ''), (v) => (d.cushion_factor = v as unknown as number)}
      oninput={touched}
      problem={wrong('cushion_factor')}
      faults="shop-faults"
    />
    {#each d.gaps ?? [] as gap, n (gap)}
      <Field
        id="gap-{n}"
        label="Gap, where it bears up to {gap.bears} G"
        measure
        note={false}
        bind:value={() => text(gap.gap), (v) => (gap.gap = v)}
        oninput={touched}
        problem={wrong(`gaps[${n}].gap`)}
        faults="shop-faults"
      />
    {/each}
  </div>
</div>

<div class="part mt-4.5">
  <h2 class="mb-1.5">What goes into every parcel</h2>
  {#each d.habits ?? [] as habit, n (habit)}
    <div class="max-phone:grid-cols-1 mb-1.5 grid grid-cols-[minmax(0,1.4fr)_minmax(0,1fr)_130px_32px] gap-2">
      <Field
        id="habit-{n}-name"
        label="Item {n + 1}"
        hideLabel
        note={false}
        bind:value={() => habit.name ?? '', (v) => (habit.name = v)}
        oninput={touched}
      />
      <Field
        id="habit-{n}-size"
        label="Size of habit {n + 1}"
        hideLabel
        measure
        note={false}
        bind:value={() => text(habit.size), (v) => (habit.size = v)}
        oninput={touched}
        problem={wrong(`habits[${n}].size`)}
        faults="shop-faults"
      />
      <Field
        id="habit-{n}-weight"
        label="Weight of habit {n + 1}"
        hideLabel
        measure
        note={false}
        bind:value={() => text(habit.weight, 'g'), (v) => (habit.weight = v)}
        oninput={touched}
      />
      <Remove of={habit.name || 'this'} go={() => dropHabit(n)} />
    </div>
  {/each}
  <button type="button" class="btn" onclick={addHabit}>Add an item</button>
</div>

<div class="part mt-4.5">
  <h2 class="mb-1.5">Materials: starting values, yours to change</h2>
  <p class="why text-soft text-note mb-2 max-w-[820px]">
    <em>Gives</em>: how far a layer is pressed in on a side with the flat hand; a box that is short by less
    takes the goods, and says so. <em>Tears every</em>: a roll with perforations is cut in whole lengths
    between them. <em>Left</em>: how much there is, in what it is sold by; a packed parcel takes off what it
    uses. Empty: it is not counted.
  </p>
  <Wide>
    <table class="w-full min-w-280">
      <thead>
        <tr
          ><th>Material</th><th>Thickness</th><th>Weight</th><td
            class="py-0.75 pr-2 pl-0 align-top first:w-[22%]"
          ></td><th>Price of 100, {d.currency}</th><th>Overlap, %</th><th>Gives</th><th>Tears every</th><th
            >Left</th
          ></tr
        >
      </thead>
      <tbody>
        {#each d.materials ?? [] as material, n (material.code)}
          {@const path = `materials[${n}]`}
          <tr>
            <td class="py-0.75 pr-2 pl-0 align-top first:w-[22%]"
              ><Field
                id="material-{n}-name"
                label="Name of {material.code}"
                hideLabel
                note={false}
                bind:value={material.name}
                oninput={touched}
              /></td
            >
            <td class="py-0.75 pr-2 pl-0 align-top first:w-[22%]"
              ><Field
                id="material-{n}-thickness"
                label="Thickness of {material.name}"
                hideLabel
                measure
                note={false}
                bind:value={() => text(material.thickness), (v) => (material.thickness = v)}
                oninput={touched}
                problem={wrong(`${path}.thickness`)}
                faults="shop-faults"
              /></td
            >
            <td class="py-0.75 pr-2 pl-0 align-top first:w-[22%]"
              ><Field
                id="material-{n}-weight"
                label="Weight of a {SOLD[material.sold]} of {material.name}"
                hideLabel
                measure
                note={false}
                bind:value={() => text(material.weight_per, 'g'), (v) => (material.weight_per = v)}
                oninput={touched}
                problem={wrong(`${path}.weight_per`)}
                faults="shop-faults"
              /></td
            ><td class="text-soft text-note pt-3 pr-2 pb-0.75 pl-0 align-top whitespace-nowrap first:w-[22%]"
              >a {SOLD[material.sold]}</td
            >
            <td class="py-0.75 pr-2 pl-0 align-top first:w-[22%]"
              ><Field
                id="material-{n}-price"
                label="Price of 100 {SOLD[material.sold]} of {material.name}"
                hideLabel
                measure
                note={false}
                bind:value={material.price_per_100}
                oninput={touched}
                problem={wrong(`${path}.price_per_100`)}
                faults="shop-faults"
              /></td
            >
            <td class="py-0.75 pr-2 pl-0 align-top first:w-[22%]"
              >{#if formOf(material.form)?.laps}<Field
                  id="material-{n}-overlap"
                  label="Overlap of {material.name}, per cent"
                  hideLabel
                  measure
                  note={false}
                  bind:value={
                    () => String(material.overlap ?? 0), (v) => (material.overlap = v as unknown as number)
                  }
                  oninput={touched}
                  problem={wrong(`${path}.overlap`)}
                  faults="shop-faults"
                />{/if}</td
            >
            <td class="py-0.75 pr-2 pl-0 align-top first:w-[22%]"
              ><Field
                id="material-{n}-gives"
                label="How far a layer of {material.name} gives"
                hideLabel
                measure
                note={false}
                bind:value={() => text(material.gives), (v) => (material.gives = v.trim() ? v : null)}
                oninput={touched}
                problem={wrong(`${path}.gives`)}
                faults="shop-faults"
              /></td
            >
            <td class="py-0.75 pr-2 pl-0 align-top first:w-[22%]"
              >{#if formOf(material.form)?.laps}<Field
                  id="material-{n}-tears"
                  label="{material.name} tears every"
                  hideLabel
                  measure
                  note={false}
                  bind:value={
                    () => text(material.tears_every), (v) => (material.tears_every = v.trim() ? v : null)
                  }
                  oninput={touched}
                  problem={wrong(`${path}.tears_every`)}
                  faults="shop-faults"
                />{/if}</td
            >
            <td class="py-0.75 pr-2 pl-0 align-top first:w-[22%]"
              ><Field
                id="material-{n}-left"
                label="{SOLD[material.sold]} of {material.name} left"
                hideLabel
                measure
                note={false}
                bind:value={() => String(material.left ?? ''), (v) => (material.left = number(v))}
                oninput={touched}
                problem={wrong(`${path}.left`)}
                faults="shop-faults"
              /></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  </Wide>
</div>
