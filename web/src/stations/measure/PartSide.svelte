<script lang="ts">
  // The part in hand: its shape turning, what it comes to, its photographs, and what a shape by points still needs.
  import { untrack } from 'svelte';
  import { Asked } from '../../lib/asked.svelte';
  import type { JobDesk } from '../../job/job.svelte';
  import { calls, type ShapeView } from '../../lib/api/client';
  import { toast } from '../../lib/toast.svelte';
  import Measured from '../../lib/ui/Measured.svelte';
  import ShapeTurning from '../../lib/view3d/ShapeTurning.svelte';
  import { nameOf } from './ask';
  import OutlineCorners from './OutlineCorners.svelte';
  import PiecesTyped from './PiecesTyped.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const n = $derived(Math.min(desk.parts.chosen, desk.typed.parts.length - 1));
  const part = $derived(desk.parts.inHand);
  const view = $derived(desk.work.view?.parts[n]);
  const asks = $derived(JSON.stringify(desk.parts.entry.shape));
  // What is wrong in a shape's points has no field of its own in the row.
  const points = $derived(
    desk.work.view?.problems.find(({ field }) =>
      /^(points|holes|members|of|file)/.test(field.replace(`parts[${n}].shape.`, '')),
    )?.sentence ?? '',
  );

  // The docket first: what it looks like is asked once the figures of the stroke are here.
  const key = $derived(`${part.key} ${asks}`);
  const asked: Asked<{ of: number; key: string; shape: ShapeView }> = new Asked(() => {
    const [of, wanted, waits] = [part.key, key, desk.work.awaits];
    return waits || wanted === untrack(() => asked.answer?.key)
      ? null
      : async (signal) => ({ of, key: wanted, shape: await calls.shape(desk.parts.entry, signal) });
  });
  const seen = $derived(asked.answer?.of === part.key ? asked.answer : null); // another part's shape is none of this one's
  const shape = $derived(seen?.shape ?? null);
  const stale = $derived(seen?.key !== key);

  function dropPhoto(name: string): void {
    const before = [...part.photos];
    const of = part;
    of.photos = of.photos.filter((one) => one !== name);
    desk.touch();
    toast.show('The photograph is removed.', () => {
      of.photos = before;
      desk.touch();
    });
  }
</script>

<section class="side sheet" aria-label="Part in hand">
  <h2>{nameOf(part, n)}</h2>
  <ShapeTurning {shape} {stale} name={nameOf(part, n)} />
  <p class="facts">
    {#if view?.bare}
      <span class="figure"><Measured text={view.bare.figure.text} /></span>
      {#if view.volume}<span class="soft">{view.volume}</span>{/if}
    {:else if part.guessed}
      <span class="soft">Its kind's measures; take your own.</span>
    {/if}
  </p>
  {#if part.guessed && view?.bare}
    <p class="guess">Its kind's starting measures. Type what the tape says.</p>
  {/if}
  {#if part.kind === 'outline'}
    <OutlineCorners {desk} {part} problem={points} />
  {:else if part.kind === 'bars' || part.kind === 'compound'}
    <PiecesTyped {desk} {part} problem={points} />
  {:else if part.kind === 'mesh'}
    {#if points}<p class="wrong">{points}</p>{/if}
    <p class="soft">
      Take in an STL, OBJ, PLY or GLB file below; say how long one step of it is, 1 in or 1 mm.
    </p>
  {/if}
  {#if part.photos.length}
    <ul class="photos">
      {#each part.photos as photo, k (photo)}
        <li>
          <a href="/api/files/{photo}" target="_blank" rel="noopener"
            ><img src="/api/files/{photo}" alt="{nameOf(part, n)}, photograph {k + 1}" /></a
          >
          <button type="button" onclick={() => dropPhoto(photo)} aria-label="Remove photograph {k + 1}"
            >×</button
          >
        </li>
      {/each}
    </ul>
  {/if}
</section>

<style>
  .side {
    padding: 10px 14px 12px;
  }
  h2 {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    color: var(--ink);
  }
  .facts {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    min-height: 24px;
    font-size: 15px;
  }
  .soft {
    color: var(--soft);
    font-size: 13.5px;
  }
  .guess {
    color: var(--amber);
    font-size: 13.5px;
  }
  .wrong {
    color: var(--stop);
    font-size: 13.5px;
  }
  .photos {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    margin-top: 8px;
  }
  .photos li {
    position: relative;
  }
  .photos img {
    width: 64px;
    height: 64px;
    object-fit: cover;
    border: 1px solid var(--hair2);
  }
  .photos button {
    position: absolute;
    right: 0;
    top: 0;
    width: 22px;
    height: 22px;
    line-height: 1;
    background: var(--sheet);
    border: 1px solid var(--hair2);
  }
</style>
