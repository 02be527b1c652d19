<script lang="ts">
  // How far board is trusted, which goods are dear, and how long each way to get a box takes.
  import { shop } from '../../lib/shop.svelte';
  import Setting from './Setting.svelte';
  import type { ListProps } from './words';

  let { d = $bindable(), wrong, touched }: ListProps = $props();

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
  <div class="max-phone:grid-cols-1 mt-1.5 grid grid-cols-3 gap-x-4.5 gap-y-3">
    {#each SHARES as [name, label] (name)}
      <Setting
        {name}
        {label}
        {wrong}
        {touched}
        bind:value={() => String(d[name] ?? ''), (typed) => (d[name] = numeral(typed))}
      />
    {/each}
    <Setting
      name="dear_from"
      label="High-value goods from, {d.currency}"
      {wrong}
      {touched}
      bind:value={() => d.dear_from ?? '', (typed) => (d.dear_from = typed)}
    />
  </div>
  <details>
    <summary class="mx-0 my-2 cursor-pointer">Minutes to make each box</summary>
    <div class="max-phone:grid-cols-1 mt-1.5 grid grid-cols-3 gap-x-4.5 gap-y-3">
      {#each shop.view?.ways ?? [] as way (way.way)}
        <Setting
          name="minutes-{way.way}"
          path="minutes.{way.way}"
          label="{way.title} (starts at {way.minutes})"
          {wrong}
          {touched}
          bind:value={() => String(d.minutes?.[way.way] ?? ''), (typed) => setMinutes(way.way, typed)}
        />
      {/each}
    </div>
  </details>
</div>
