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
  <div class="mb-1.5 flex flex-wrap items-center gap-x-4.5 gap-y-1">
    <h2 class="mr-auto">Which one, and why</h2>
    {#if found.habit}
      <label class="listed"
        >savings for
        <input
          class="field text-ink h-8.5 w-20"
          id="orders"
          type="number"
          min="1"
          max="100000"
          bind:value={orders}
        /> orders</label
      >
    {/if}
  </div>
  {#if found.habit}<p class="text-soft text-note mx-0 -mt-1 mb-1">Usual practice, {found.habit}</p>{/if}
  <ul class="sheet">
    {#each found.alternatives as one (JSON.stringify(one.key))}
      <li
        class="border-t-hair max-phone:grid-cols-[minmax(0,1fr)_auto] grid grid-cols-[112px_minmax(0,1fr)_auto_auto] items-center gap-x-3.5 gap-y-0.5 border-t pt-0.75 pr-2 pb-1 pl-3 first:border-t-0"
        class:chosen={one.chosen}
      >
        <b class="aims font-title max-phone:col-span-full text-note leading-[1.2]">{one.aims.join(', ')}</b>
        <span class="max-phone:col-span-full text-note"
          >{one.box}, {one.service}, {inDays(one.days)}
          <small class="text-soft text-small block leading-[1.25]">{one.why} {one.gives_up}</small></span
        >
        <span class="sum max-phone:text-left text-right"
          ><b class="figure text-lead">{one.total}</b><small class="text-soft text-small block leading-[1.25]"
            >{one.saved ? `saves ${one.saved}` : ''}</small
          ></span
        >
        <button
          type="button"
          class="btn choose min-h-8"
          disabled={one.chosen}
          aria-label="{one.chosen ? 'Chosen' : 'Choose'}, the {one.aims[0]}: {one.box}, {one.service}"
          onclick={() => choose(one.key)}>{one.chosen ? 'Chosen' : 'Choose'}</button
        >
      </li>
    {/each}
  </ul>
</section>

<style>
  .chosen {
    box-shadow: inset 4px 0 0 var(--twine);
  }
  .aims::first-letter {
    text-transform: uppercase;
  }
</style>
