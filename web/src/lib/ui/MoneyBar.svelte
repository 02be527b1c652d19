<script lang="ts">
  // What the money goes to, as one bar in proportion; patterns tell the pieces apart, not colour alone.
  import type { CostsView } from '../api/client';

  interface Props {
    costs: CostsView;
    most: number;
  }
  let { costs, most }: Props = $props();

  const sum = (...amounts: string[]) => amounts.reduce((total, amount) => total + Number(amount), 0);
  const pieces = $derived([
    { name: 'postage', value: sum(costs.postage, costs.surcharges), look: 'goes-post' },
    { name: 'cover', value: sum(costs.cover), look: 'goes-cover' },
    { name: 'box', value: sum(costs.box, costs.tape), look: 'goes-box' },
    { name: 'wrap and fill', value: sum(costs.wrap, costs.fill), look: 'goes-fill' },
    { name: 'time', value: sum(costs.labour), look: 'goes-time' },
  ]);
</script>

<div
  class="bar"
  role="img"
  aria-label={pieces
    .filter((p) => p.value)
    .map((p) => `${p.name} ${p.value.toFixed(2)}`)
    .join(', ')}
>
  {#each pieces as piece (piece.name)}
    <i class={piece.look} style:width="{most ? (piece.value / most) * 100 : 0}%"></i>
  {/each}
</div>

<style>
  .bar {
    display: flex;
    height: 6px;
  }
  i {
    height: 100%;
  }
</style>
