<script lang="ts">
  // A box made over that worked is kept as a pattern, to be made again for other goods.
  import { attempt } from '../../lib/attempt';
  import type { JobDesk } from '../../job/job.svelte';
  import { type ShopFile, type WayView } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import { toast } from '../../lib/toast.svelte';

  interface Props {
    desk: JobDesk;
    way: WayView;
  }
  let { desk, way }: Props = $props();

  const inside = $derived(way.inside.figure.text);
  const kept = $derived((shop.view?.shop.patterns ?? []).find((one) => one.name === way.item));

  async function put(patterns: ShopFile['patterns'], says = '', undo?: () => void): Promise<void> {
    await attempt(async () => {
      await shop.change({ patterns });
      await desk.work.ask();
      if (says) toast.show(says, undo);
    });
  }
  function keep(): void {
    const was = shop.view?.shop.patterns ?? [];
    const name = `${way.made_over} made ${inside}`;
    // Exactly, so that it holds the goods it was kept from; what is shown is rounded down.
    const patterns = [
      ...was.filter((one) => one.name !== name),
      { name, box: way.made_over, inside: [...way.inside.mm] },
    ];
    void put(patterns, `${name} is kept as a pattern.`, () => void put(was));
  }
</script>

{#if !kept}
  <p class="text-soft text-note mb-2">
    <button type="button" class="link" onclick={keep}>Save as a pattern</button>
    to make it again from another {way.made_over}.
  </p>
{/if}
