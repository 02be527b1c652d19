<script lang="ts">
  // The cheapest plan and what else one would choose: why, what it gives up, and what it saves on the habit.
  import type { PlanKey, PlanTable } from '../../lib/api/client';
  import { inDays } from '../../lib/days';

  interface Props {
    found: PlanTable;
    orders: number | null;
    choose: (plan: PlanKey) => void;
  }
  let { found, orders = $bindable(), choose }: Props = $props();
</script>

<section aria-label="Alternatives">
  <div class="head">
    <h2>Which one, and why</h2>
    {#if found.habit}
      <label class="listed"
        >savings for
        <input class="field" id="orders" type="number" min="1" max="100000" bind:value={orders} /> orders</label
      >
    {/if}
  </div>
  {#if found.habit}<p class="habit">Usual practice, {found.habit}</p>{/if}
  <ul class="sheet">
    {#each found.alternatives as one (JSON.stringify(one.key))}
      <li class:chosen={one.chosen}>
        <b class="aims">{one.aims.join(', ')}</b>
        <span class="what"
          >{one.box}, {one.service}, {inDays(one.days)}
          <small>{one.why} {one.gives_up}</small></span
        >
        <span class="sum"
          ><b class="figure">{one.total}</b><small>{one.saved ? `saves ${one.saved}` : ''}</small></span
        >
        <button
          type="button"
          class="btn choose"
          disabled={one.chosen}
          aria-label="{one.chosen ? 'Chosen' : 'Choose'}, the {one.aims[0]}: {one.box}, {one.service}"
          onclick={() => choose(one.key)}>{one.chosen ? 'Chosen' : 'Choose'}</button
        >
      </li>
    {/each}
  </ul>
</section>

<style>
  .head {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 18px;
    margin-bottom: 6px;
  }
  .head h2 {
    margin-right: auto;
  }
  .habit {
    margin: -4px 0 4px;
    color: var(--soft);
    font-size: 14px;
  }
  .listed input {
    width: 80px;
    height: 34px;
    color: var(--ink);
  }
  li {
    display: grid;
    grid-template-columns: 112px minmax(0, 1fr) auto auto;
    gap: 2px 14px;
    align-items: center;
    padding: 3px 8px 4px 12px;
    border-top: 1px solid var(--hair);
  }
  li:first-child {
    border-top: 0;
  }
  .chosen {
    box-shadow: inset 4px 0 0 var(--twine);
  }
  .aims::first-letter {
    text-transform: uppercase;
  }
  .aims {
    font-weight: 650;
    font-size: 14.5px;
    line-height: 1.2;
  }
  small {
    display: block;
    color: var(--soft);
    font-size: 13px;
    line-height: 1.25;
  }
  .what {
    font-size: 14.5px;
  }
  .sum {
    text-align: right;
  }
  .figure {
    font-size: 17px;
  }
  .btn {
    min-height: 32px;
  }
  @media (max-width: 700px) {
    li {
      grid-template-columns: minmax(0, 1fr) auto;
    }
    .aims,
    .what {
      grid-column: 1 / -1;
    }
    .sum {
      text-align: left;
    }
  }
</style>
