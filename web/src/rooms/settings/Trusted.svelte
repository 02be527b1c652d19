<script lang="ts">
  // How far board is trusted, which goods are dear, and how long each way to get a box takes.
  import type { ShopFile } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import Field from '../../lib/ui/Field.svelte';

  interface Props {
    d: ShopFile;
    wrong: (name: string) => string;
    touched: () => void;
  }
  let { d = $bindable(), wrong, touched }: Props = $props();

  const SHARES = [
    ['used_percent', 'Strength left in a used box, %'],
    ['recut_percent', 'Strength left in a re-cut box, %'],
    ['damp_percent', 'Strength left in damp air, %'],
    ['stack_safety', 'Safety factor for stacking'],
  ] as const;

  /** What is no whole number is sent as it was typed: the shop says what is allowed. */
  const numeral = (typed: string) => (/^\d+$/.test(typed.trim()) ? Number(typed) : typed) as number;

  function setMinutes(way: string, typed: string): void {
    const others = Object.entries(d.minutes ?? {}).filter(([name]) => name !== way);
    d.minutes = Object.fromEntries(typed.trim() ? [...others, [way, numeral(typed)]] : others);
  }
</script>

<div class="part">
  <h2>Board strength and time</h2>
  <div class="grid">
    {#each SHARES as [name, label] (name)}
      <Field
        id="shop-{name}"
        problem={wrong(name)}
        faults="shop-faults"
        {label}
        measure
        note={false}
        bind:value={() => String(d[name] ?? ''), (typed) => (d[name] = numeral(typed))}
        oninput={touched}
      />
    {/each}
    <Field
      id="shop-dear_from"
      problem={wrong('dear_from')}
      faults="shop-faults"
      label="High-value goods from, {d.currency}"
      measure
      note={false}
      bind:value={() => d.dear_from ?? '', (typed) => (d.dear_from = typed)}
      oninput={touched}
    />
  </div>
  <details>
    <summary>Minutes to make each box</summary>
    <div class="grid">
      {#each shop.view?.ways ?? [] as way (way.way)}
        <Field
          id="shop-minutes-{way.way}"
          problem={wrong(`minutes.${way.way}`)}
          faults="shop-faults"
          label="{way.title} (starts at {way.minutes})"
          measure
          note={false}
          bind:value={() => String(d.minutes?.[way.way] ?? ''), (typed) => setMinutes(way.way, typed)}
          oninput={touched}
        />
      {/each}
    </div>
  </details>
</div>

<style>
  .grid {
    display: grid;
    grid-template-columns: repeat(3, minmax(0, 1fr));
    gap: 12px 18px;
    margin-top: 6px;
  }
  summary {
    margin: 8px 0;
    cursor: pointer;
  }
</style>
