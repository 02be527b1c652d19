<script lang="ts">
  // What can be done with the thing in hand, each also by a key.
  import { keys } from '../../lib/keys.svelte';
  import type { Arranging } from './arranging.svelte';

  interface Props {
    arranging: Arranging;
  }
  let { arranging }: Props = $props();

  const thing = $derived(arranging.things.find((one) => one.thing === arranging.chosen));
  const idle = $derived(!thing || arranging.search.searching);

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

<div class="hand flex min-h-10.5 flex-wrap items-center gap-2" role="group" aria-label="The selected part">
  <span class="name text-soft text-note min-w-37.5 flex-1"
    >{thing ? thing.name : 'No part selected: choose one in the box or the list.'}</span
  >
  {#each deeds as deed (deed.key)}
    <button
      class="btn disabled:border-hair2 disabled:text-soft text-note min-h-8.5 px-2.5 py-0"
      disabled={idle}
      onclick={() => thing && deed.act(thing.thing)}
    >
      {deed.key === 'l' && thing?.locked ? 'Unlock' : deed.word}
      <kbd class="text-soft text-fine font-mono">{deed.key}</kbd>
    </button>
  {/each}
</div>
