<script lang="ts">
  // Carriers that are live quotes too, each at its address; their tariffs stay what prices are reckoned by.
  import Cell from './Cell.svelte';
  import type { ListProps } from './words';

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
  <div class="row heads" aria-hidden="true">
    <span>Carrier, as its tariff has it</span><span>Address</span>
  </div>
  {#each d.wires ?? [] as one, n (n)}
    {@const path = `wires[${n}]`}
    {@const of = `of network carrier ${n + 1}`}
    <div class="row">
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
      <button
        type="button"
        class="off"
        onclick={() => drop(n)}
        aria-label="Remove {one.carrier || 'this one'}">×</button
      >
    </div>
  {/each}
  <button type="button" class="btn" onclick={add}>Add a carrier</button>
</div>

<style>
  .heads {
    font-size: 13px;
    color: var(--soft);
  }
  .row {
    display: grid;
    grid-template-columns: minmax(140px, 260px) minmax(180px, 420px) 28px;
    gap: 6px;
    align-items: center;
    margin-bottom: 6px;
  }
</style>
