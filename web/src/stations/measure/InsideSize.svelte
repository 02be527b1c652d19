<script lang="ts">
  // The inside size, stated back before anybody cuts, and how everything lies in it.
  import type { JobDesk } from '../../job/job.svelte';
  import InBox from '../../lib/draw/InBox.svelte';
  import Measured from '../../lib/ui/Measured.svelte';
  import Why from '../../lib/ui/Why.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const inside = $derived(desk.work.view?.inside);
</script>

<section class="inside sheet min-h-82.5 px-4 py-3.5" aria-label="Inside size">
  {#if inside && desk.work.view?.layout}
    <p class="text-soft">Inside size needed</p>
    <p class="stated figure text-title min-h-10 tracking-[-0.06em]">
      <Why
        of="this inside size"
        why={inside.figure.why}
        note={inside.figure.exact ? '' : 'Shown rounded up.'}
      >
        <Measured text={inside.figure.text} />
      </Why>
    </p>
    <InBox layout={desk.work.view.layout} sides={inside.sides} />
    <p class="key text-soft text-small mt-2 flex items-center gap-1.5">
      <i class="goods border-ink h-3 w-3 border [background:color-mix(in_srgb,var(--ink)_32%,var(--sheet))]"
      ></i>{desk.typed.parts.length > 1 ? 'parts, as boxes' : desk.parts.inHand.name || 'the goods'}<i
        class="border-ink border-twine ml-3 h-3 w-3 border [background:color-mix(in_srgb,var(--twine)_42%,var(--sheet))]"
      ></i>extras
    </p>
  {:else}
    <p class="text-soft">Inside size</p>
    <p class="text-soft">
      {desk.work.view?.problems.length
        ? 'One of the measures cannot be read; it is marked.'
        : 'Length, width, height and weight first. The inside size is stated here before anybody cuts.'}
    </p>
  {/if}
</section>
