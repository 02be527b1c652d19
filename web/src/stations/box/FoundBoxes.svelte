<script lang="ts">
  // Used boxes found for this job: each stands among the ways with those of the stash, and can be kept there.
  import { tick } from 'svelte';
  import { attempt } from '../../lib/attempt';
  import type { JobDesk } from '../../job/job.svelte';
  import { blankFoundBox } from '../../job/typed';
  import { type ShopFile } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import Wear from '../../lib/ui/Wear.svelte';
  import { toast } from '../../lib/toast.svelte';
  import Field from '../../lib/ui/Field.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const found = $derived(desk.typed.foundBoxes);
  const touch = () => desk.touch();

  async function add(): Promise<void> {
    desk.typed.foundBoxes.push(blankFoundBox());
    touch();
    await tick();
    document.getElementById(`found-${found.length - 1}-name`)?.focus();
  }
  function drop(n: number): void {
    const [gone] = desk.typed.foundBoxes.splice(n, 1);
    touch();
    if (gone)
      toast.show('The box is off this job.', () => {
        desk.typed.foundBoxes.splice(n, 0, gone);
        touch();
      });
  }
  /** Into the stash, where every job finds it. */
  async function keep(n: number): Promise<void> {
    const box = $state.snapshot(found[n]);
    if (!box || !shop.view) return;
    const was = shop.view.shop;
    const kept = {
      name: box.name.trim() || `found ${box.inside.trim()}`,
      inside: box.inside,
      board: box.board || was.default_board,
      price: '0.00',
      count: 1,
      used: true,
      carrier: '',
      worn: box.worn as NonNullable<ShopFile['boxes']>[number]['worn'],
      hollow: box.hollow.trim() || null,
    };
    await attempt(async () => {
      await shop.change({ boxes: [...(was.boxes ?? []), kept] });
      desk.typed.foundBoxes.splice(n, 1);
      touch();
      toast.show(`${kept.name} is in the stash.`, async () => {
        await shop.change({ boxes: was.boxes ?? [] });
        desk.typed.foundBoxes.splice(n, 0, box);
        touch();
      });
    });
  }
</script>

<section class="found" aria-label="Boxes found for this job">
  <h2>Found for this job</h2>
  {#each found as box, n (box)}
    {@const wrong =
      desk.work.problem(`found_boxes[${n}].inside`) ||
      desk.work.problem(`found_boxes[${n}].hollow`) ||
      desk.work.problem(`found_boxes[${n}].board`)}
    <div
      class="row border-t-hair border-t px-0 pt-1.5 pb-2"
      role="group"
      aria-label={box.name || `Found box ${n + 1}`}
    >
      <Field id="found-{n}-name" label="Name" note={false} most={80} bind:value={box.name} oninput={touch} />
      <Field
        id="found-{n}-inside"
        label="Inside, {shop.units}"
        note={false}
        measure
        placeholder="22 x 18 x 22"
        bind:value={box.inside}
        oninput={touch}
        problem={wrong}
      />
      <details>
        <summary class="text-note cursor-pointer px-0 py-1">Condition and inserts</summary>
        <Wear
          worn={box.worn}
          change={(worn) => {
            box.worn = worn;
            touch();
          }}
        />
        <Field
          id="found-{n}-hollow"
          label="Inside the original inserts"
          note={false}
          measure
          placeholder="none"
          bind:value={box.hollow}
          oninput={touch}
        />
      </details>
      {#if wrong}<p class="wrong text-stop text-small">{wrong}</p>{/if}
      <p class="text-note flex gap-4">
        <button
          type="button"
          class="link"
          disabled={!box.inside.trim() || wrong !== ''}
          onclick={() => keep(n)}>Save to the stash</button
        >
        <button type="button" class="link" onclick={() => drop(n)}>Take off</button>
      </p>
    </div>
  {/each}
  <button type="button" class="btn" id="found-add" onclick={add}>Add a found box</button>
</section>

<style>
  .found {
    margin-top: 16px;
  }

  #found-add {
    margin-top: 6px;
  }
</style>
