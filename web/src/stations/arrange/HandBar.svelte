<script lang="ts">
  // What can be done with the thing in hand, each also by a key.
  import { keys } from '../../lib/keys.svelte';
  import type { Arranging } from './arranging.svelte';

  interface Props {
    arranging: Arranging;
  }
  let { arranging }: Props = $props();

  const thing = $derived(arranging.things.find((one) => one.thing === arranging.chosen));
  const idle = $derived(!thing || arranging.searching);

  const deeds: { key: string; word: string; does: string; act: (which: number) => void }[] = [
    {
      key: 'r',
      word: 'Turn',
      does: 'turn the selected part about its height',
      act: (n) => void arranging.turn(n, 2),
    },
    { key: 't', word: 'Tip', does: 'tip the selected part forwards', act: (n) => void arranging.turn(n, 0) },
    {
      key: 'y',
      word: 'Roll',
      does: 'roll the selected part sideways',
      act: (n) => void arranging.turn(n, 1),
    },
    {
      key: 'd',
      word: 'Lower into place',
      does: 'lower the selected part until something holds it',
      act: (n) => void arranging.move(n, [0, 0, 0], true),
    },
    {
      key: 'l',
      word: 'Lock',
      does: 'lock the selected part where it lies',
      act: (n) => void arranging.lock(n),
    },
  ];
  $effect(() =>
    keys.add(
      deeds.map(({ key, does, act }) => ({ key, does, act: () => !idle && thing && act(thing.thing) })),
    ),
  );
</script>

<div class="hand" role="group" aria-label="The selected part">
  <span class="name">{thing ? thing.name : 'No part selected: choose one in the box or the list.'}</span>
  {#each deeds as deed (deed.key)}
    <button class="btn" disabled={idle} onclick={() => thing && deed.act(thing.thing)}>
      {deed.key === 'l' && thing?.locked ? 'Unlock' : deed.word} <kbd>{deed.key}</kbd>
    </button>
  {/each}
</div>

<style>
  .hand {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px;
    min-height: 42px;
  }
  .name {
    flex: 1;
    min-width: 150px;
    font-size: 14px;
    color: var(--soft);
  }
  .btn {
    min-height: 34px;
    padding: 0 10px;
    font-size: 14px;
  }
  .btn:disabled {
    color: var(--soft);
    border-color: var(--hair2);
  }
  kbd {
    font-family: var(--font-mono);
    font-size: 12px;
    color: var(--soft);
  }
</style>
