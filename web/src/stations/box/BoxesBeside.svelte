<script lang="ts">
  // Two boxes side by side, row by row; what is less of money stands out.
  import { Asked } from '../../lib/asked.svelte';
  import { calls, type ComparedRows } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import Measured from '../../lib/ui/Measured.svelte';
  import type { BoxBeside } from './beside';
  import Remove from '../../lib/ui/Remove.svelte';

  interface Props {
    boxes: BoxBeside[];
    drop: (key: string) => void;
  }
  let { boxes, drop }: Props = $props();

  const ROWS = [
    ['Total cost', 'total', true],
    ['by', 'service', false],
    ['Box, tape and time', 'own', true],
    ['Inside', 'inside', false],
    ['Outside', 'outside', false],
    ['Room left', 'room', false],
    ['Weighs', 'weight', false],
    ['Air', 'air', false],
    ['Minutes', 'minutes', false],
    ['From stock', 'takes', false],
  ] as const;

  const MEASURED: string[] = ['inside', 'outside', 'weight'];

  /** What stands out in each row of money, as the shop reckons it. */
  const asked = new Asked(() => {
    const rows = Object.fromEntries(
      (['total', 'own'] as const)
        .map((name) => [name, boxes.map((box) => box[name])] as const)
        .filter(([, amounts]) => amounts.every(Boolean)),
    );
    const currency = shop.view?.shop.currency;
    return currency && boxes.length > 1 ? (signal) => calls.compare({ currency, rows }, signal) : null;
  });
  const compared = $derived<ComparedRows>(asked.answer ?? {});
</script>

<section class="sheet beside mb-3 px-4 py-2.5" aria-label="Compare boxes">
  {#if boxes.length < 2}
    <p class="text-soft text-note">{boxes[0]?.name}: tick another to compare.</p>
  {:else}
    <table class="text-note w-full border-collapse">
      <thead>
        <tr>
          <td class="py-0.75 pr-2.5 pl-0 align-top"></td>
          {#each boxes as box (box.key)}
            <th class="py-0.75 pr-2.5 pl-0 text-left align-top" scope="col"
              >{box.name}
              <Remove of={box.name} go={() => drop(box.key)} /></th
            >
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each ROWS as [label, name, money] (name)}
          {#if boxes.some((box) => box[name])}
            <tr class="border-t-hair border-t">
              <th class="text-soft w-32.5 py-0.75 pr-2.5 pl-0 text-left align-top font-normal" scope="row"
                >{label}</th
              >
              {#each boxes as box, n (box.key)}
                <td
                  class="py-0.75 pr-2.5 pl-0 align-top"
                  class:figure={money}
                  class:least={money && compared[name]?.least[n]}
                  >{#if MEASURED.includes(name)}<Measured text={box[name]} />{:else}{box[name] ||
                      '–'}{/if}</td
                >
              {/each}
            </tr>
          {/if}
        {/each}
      </tbody>
    </table>
  {/if}
</section>

<style>
  td :global(.measured) {
    white-space: normal;
  }
  .least {
    color: var(--twine);
    font-weight: 650;
  }
</style>
