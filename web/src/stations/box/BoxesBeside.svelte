<script lang="ts">
  // Two boxes side by side, row by row; what is less of money stands out.
  import { Asked } from '../../lib/asked.svelte';
  import { calls, type ComparedRows } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import Measured from '../../lib/ui/Measured.svelte';
  import type { BoxBeside } from './beside';

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

<section class="sheet beside" aria-label="Compare boxes">
  {#if boxes.length < 2}
    <p class="soft">{boxes[0]?.name}: tick another to compare.</p>
  {:else}
    <table>
      <thead>
        <tr>
          <td></td>
          {#each boxes as box (box.key)}
            <th scope="col"
              >{box.name}
              <button class="off" aria-label="Remove {box.name}" onclick={() => drop(box.key)}>×</button></th
            >
          {/each}
        </tr>
      </thead>
      <tbody>
        {#each ROWS as [label, name, money] (name)}
          {#if boxes.some((box) => box[name])}
            <tr>
              <th scope="row">{label}</th>
              {#each boxes as box, n (box.key)}
                <td class:figure={money} class:least={money && compared[name]?.least[n]}
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
  .beside {
    padding: 10px 16px;
    margin-bottom: 12px;
  }
  table {
    width: 100%;
    font-size: 14.5px;
    border-collapse: collapse;
  }
  th[scope='row'] {
    width: 130px;
    font-weight: 400;
    color: var(--soft);
    text-align: left;
  }
  th[scope='col'] {
    text-align: left;
  }
  td,
  th {
    padding: 3px 10px 3px 0;
    vertical-align: top;
  }
  tbody tr {
    border-top: 1px solid var(--hair);
  }
  td :global(.measured) {
    white-space: normal;
  }
  .least {
    color: var(--twine);
    font-weight: 650;
  }
  .off {
    min-width: 28px;
    color: var(--soft);
  }
  .soft {
    font-size: 14px;
    color: var(--soft);
  }
</style>
