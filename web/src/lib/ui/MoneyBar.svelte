<script lang="ts">
  // What the money goes to, as one bar in proportion; patterns tell the pieces apart, not colour alone.
  import type { QuoteView } from '../api/client';

  interface Props {
    quote: QuoteView;
    most: number;
  }
  let { quote, most }: Props = $props();

  const sum = (...amounts: string[]) => amounts.reduce((total, amount) => total + Number(amount), 0);
  const pieces = $derived([
    { name: 'postage', value: sum(quote.costs.postage, quote.costs.surcharges), look: 'post' },
    { name: 'cover', value: sum(quote.costs.cover), look: 'cover' },
    { name: 'box', value: sum(quote.costs.box, quote.costs.tape), look: 'box' },
    { name: 'fill', value: sum(quote.costs.wrap, quote.costs.fill), look: 'fill' },
    { name: 'time', value: sum(quote.costs.labour), look: 'hatch' },
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
    height: 11px;
    margin: 6px 0 5px;
  }
  i {
    height: 100%;
  }
  .post {
    background: var(--ink);
  }
  .cover {
    background: repeating-linear-gradient(90deg, var(--ink) 0 1.5px, transparent 1.5px 4px);
  }
  .box {
    background: var(--board);
  }
  .fill {
    background: var(--board-pale);
    outline: 1px solid var(--board);
    outline-offset: -1px;
  }
</style>
