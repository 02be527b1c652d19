<script lang="ts">
  // Carriers that are live quotes too, each at its address; their tariffs stay what prices are reckoned by.
  import Cell from './Cell.svelte';
  import type { ListProps } from './words';
  import Remove from '../../lib/ui/Remove.svelte';

  let { d = $bindable(), wrong, touched }: ListProps = $props();

  function add(): void {
    d.wires = [...(d.wires ?? []), { carrier: '', address: 'https://' }];
    touched();
  }
  function drop(n: number): void {
    d.wires = (d.wires ?? []).filter((_, k) => k !== n);
    touched();
  }
</script>

<div class="part">
  <h2>Carriers with live quotes</h2>
  <div
    class="row heads text-soft text-small max-phone:hidden mb-1.5 grid grid-cols-[minmax(140px,260px)_minmax(180px,420px)_28px] items-center gap-1.5"
    aria-hidden="true"
  >
    <span>Carrier, as its tariff has it</span><span>Address</span>
  </div>
  {#each d.wires ?? [] as one, n (one)}
    {@const path = `wires[${n}]`}
    {@const of = `of network carrier ${n + 1}`}
    <div
      class="row max-phone:grid-cols-2 max-phone:mb-4 mb-1.5 grid grid-cols-[minmax(140px,260px)_minmax(180px,420px)_28px] items-center gap-1.5"
    >
      <Cell
        id="wire-{n}-carrier"
        label="Name {of}"
        measure={false}
        bind:value={one.carrier}
        problem={wrong(`${path}.carrier`)}
        oninput={touched}
      />
      <Cell
        id="wire-{n}-address"
        label="Address {of}"
        measure={false}
        bind:value={one.address}
        problem={wrong(`${path}.address`)}
        oninput={touched}
      />
      <Remove of={one.carrier || 'this one'} go={() => drop(n)} />
    </div>
  {/each}
  <button type="button" class="btn" onclick={add}>Add a carrier</button>
</div>
