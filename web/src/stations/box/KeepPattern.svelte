<script lang="ts">
  // A box made over that worked is kept as a pattern, to be made again for other goods.
  import type { JobDesk } from '../../job/job.svelte';
  import { calls, sentence, type ShopFile, type WayView } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import { toast } from '../../lib/toast.svelte';

  interface Props {
    desk: JobDesk;
    way: WayView;
  }
  let { desk, way }: Props = $props();

  const inside = $derived(way.inside.figure.text);
  const kept = $derived((shop.view?.shop.patterns ?? []).find((one) => one.name === way.item));

  const change = (patterns: ShopFile['patterns']) => {
    const view = shop.view;
    if (!view) return Promise.reject(new Error('The shop is not read yet.'));
    return calls.changeShop({ revision: view.revision, shop: { ...view.shop, patterns } });
  };
  async function keep(): Promise<void> {
    const was = shop.view?.shop.patterns ?? [];
    const name = `${way.made_over} made ${inside}`;
    const pattern = { name, box: way.made_over, inside };
    try {
      shop.view = await change([...was.filter((one) => one.name !== name), pattern]);
      await desk.workOut();
      toast.show(`${name} is kept as a pattern.`, () => void undo(was));
    } catch (fault) {
      toast.show(sentence(fault));
    }
  }
  async function undo(was: ShopFile['patterns']): Promise<void> {
    try {
      shop.view = await change(was);
      await desk.workOut();
    } catch (fault) {
      toast.show(sentence(fault));
    }
  }
</script>

{#if !kept}
  <p class="pattern">
    <button type="button" class="link" onclick={keep}>Keep as a pattern</button>
    to make it again from another {way.made_over}.
  </p>
{/if}

<style>
  .pattern {
    font-size: 14px;
    color: var(--soft);
    margin-bottom: 8px;
  }
</style>
