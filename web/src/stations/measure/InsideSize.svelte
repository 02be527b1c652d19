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

<section class="inside sheet" aria-label="Inside size">
  {#if inside && desk.work.view?.layout}
    <p class="soft">Inside size needed</p>
    <p class="stated figure">
      <Why
        of="this inside size"
        why={inside.figure.why}
        note={inside.figure.exact ? '' : 'Shown rounded up.'}
      >
        <Measured text={inside.figure.text} />
      </Why>
    </p>
    <InBox layout={desk.work.view.layout} sides={inside.sides} />
    <p class="key">
      <i class="goods"></i>{desk.typed.parts.length > 1
        ? 'parts, as boxes'
        : desk.parts.inHand.name || 'the goods'}<i class="with"></i>extras
    </p>
  {:else}
    <p class="soft">Inside size</p>
    <p class="teach">
      {desk.work.view?.problems.length
        ? 'One of the measures cannot be read; it is marked.'
        : 'Length, width, height and weight first. The inside size is stated here before anybody cuts.'}
    </p>
  {/if}
</section>

<style>
  .inside {
    padding: 14px 16px;
    min-height: 330px;
  }
  .soft,
  .teach {
    color: var(--soft);
  }
  .stated {
    font-size: 22px;
    letter-spacing: -0.06em;
    min-height: 40px;
  }
  .key {
    display: flex;
    align-items: center;
    gap: 6px;
    font-size: 13.5px;
    color: var(--soft);
    margin-top: 8px;
  }
  .key i {
    width: 12px;
    height: 12px;
    border: 1px solid var(--ink);
    background: color-mix(in srgb, var(--ink) 32%, var(--sheet));
  }
  .key .with {
    margin-left: 12px;
    border-color: var(--twine);
    background: color-mix(in srgb, var(--twine) 42%, var(--sheet));
  }
</style>
