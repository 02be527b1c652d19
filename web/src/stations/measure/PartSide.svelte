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
  import Photo from '../../lib/ui/Photo.svelte';
  import Remove from '../../lib/ui/Remove.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const n = $derived(desk.parts.chosen);
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

  function remove(): void {
    const gone = desk.parts.remove(n);
    if (gone) toast.show(`${nameOf(gone.part, n)} is removed.`, gone.undo);
    document.getElementById(`part-${desk.parts.chosen}-name`)?.focus();
  }

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

<section class="side sheet px-3.5 pt-2.5 pb-3" aria-label="Part in hand">
  <h2 class="text-ink wrap-anywhere">{nameOf(part, n)}</h2>
  <ShapeTurning {shape} {stale} name={nameOf(part, n)} />
  <p class="facts text-body flex min-h-6 items-baseline justify-between">
    {#if view?.bare}
      <span class="figure"><Measured text={view.bare.figure.text} /></span>
      {#if view.volume}<span class="text-soft text-small">{view.volume}</span>{/if}
    {:else if part.guessed}
      <span class="text-soft text-small">Its kind's measures; take your own.</span>
    {/if}
  </p>
  {#if part.guessed && view?.bare}
    <p class="text-amber text-small">Its kind's starting measures. Type what the tape says.</p>
  {/if}
  {#if part.kind === 'outline'}
    <OutlineCorners {desk} {part} problem={points} />
  {:else if part.kind === 'bars' || part.kind === 'compound'}
    <PiecesTyped {desk} {part} problem={points} />
  {:else if part.kind === 'mesh'}
    {#if points}<p class="wrong text-stop text-small">{points}</p>{/if}
    <p class="text-soft text-small">
      Take in an STL, OBJ, PLY or GLB file below; say how long one step of it is, 1 in or 1 mm.
    </p>
  {/if}
  {#if desk.typed.parts.length > 1}
    <button type="button" class="link text-small" onclick={remove}>Remove this part</button>
  {/if}
  {#if part.photos.length}
    <ul class="photos mt-2 flex flex-wrap gap-1.5">
      {#each part.photos as photo, k (photo)}
        <li class="relative">
          <Photo file={photo} alt="{nameOf(part, n)}, photograph {k + 1}" />
          <Remove
            of="photograph {k + 1}"
            go={() => dropPhoto(photo)}
            place="border-hair2 bg-sheet absolute top-0 right-0 border"
          />
        </li>
      {/each}
    </ul>
  {/if}
</section>
