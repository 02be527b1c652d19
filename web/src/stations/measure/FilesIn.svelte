<script lang="ts">
  // Below the parts: one more row, files taken in (photographs, meshes, tables), and the parts as a table.
  import type { JobDesk } from '../../job/job.svelte';
  import { toTyped } from '../../job/fromJob';
  import { calls, sentence, type TakenIn } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import { isBlank } from '../../job/typed';
  import { nameOf } from './ask';

  interface Props {
    desk: JobDesk;
    add: () => void;
    keep: () => void;
  }
  let { desk, add, keep }: Props = $props();

  let input: HTMLInputElement;
  let said = $state<{ text: string; wrong: boolean }[]>([]);
  let busy = $state(false);
  let over = $state(false);

  async function send(files: FileList | File[] | null | undefined): Promise<void> {
    if (!files?.length) return;
    busy = true;
    try {
      const taken = await calls.sendFiles([...files]);
      said = taken.map(become);
      if (taken.some((one) => !one.problem)) desk.touch();
    } catch (fault) {
      said = [{ text: sentence(fault), wrong: true }];
    }
    busy = false;
    input.value = '';
  }

  /** What becomes of a file: a photograph and a mesh belong to the part in hand, a table brings its parts. */
  function become(taken: TakenIn): { text: string; wrong: boolean } {
    const part = desk.parts.inHand;
    const called = nameOf(part, desk.parts.chosen);
    if (taken.problem) return { text: `${taken.called}: ${taken.problem}`, wrong: true };
    if (taken.photo) {
      if (!part.photos.includes(taken.photo)) part.photos.push(taken.photo);
      return { text: `${taken.called} is a photograph of ${called}.`, wrong: false };
    }
    if (taken.mesh) {
      part.kind = 'mesh';
      part.shape = { kind: 'mesh', file: taken.mesh };
      part.guessed = false;
      const steps = (taken.steps ?? []).map((side) => Number(side.toPrecision(4))).join(' x ');
      return {
        text: `${taken.called} is the shape of ${called}: ${steps} steps. Say how long a step is.`,
        wrong: false,
      };
    }
    const parts = toTyped({ parts: taken.parts ?? [] } as never, shop.units).parts;
    desk.typed.parts = [...desk.typed.parts.filter((one) => !isBlank(one)), ...parts];
    return { text: `${taken.called}: ${parts.length} parts taken in.`, wrong: false };
  }

  async function table(event: MouseEvent): Promise<void> {
    event.preventDefault();
    const link = event.currentTarget as HTMLAnchorElement;
    if (await desk.saver.settle()) location.assign(link.href);
  }
</script>

<!-- Files may also be dropped here; the button beside does the same. -->
<!-- svelte-ignore a11y_no_static_element_interactions -->
<div
  class="-mt-2 flex flex-wrap items-center gap-x-4 gap-y-2 border border-dashed border-transparent"
  class:over
  ondragover={(event) => {
    event.preventDefault();
    over = true;
  }}
  ondragleave={() => (over = false)}
  ondrop={(event) => {
    event.preventDefault();
    over = false;
    void send(event.dataTransfer?.files);
  }}
>
  <button type="button" class="btn" id="add-part" onclick={add}>Add a part</button>
  <button type="button" class="btn" onclick={() => input.click()} disabled={busy}
    >{busy ? 'Importing…' : 'Import files'}</button
  >
  <input
    bind:this={input}
    type="file"
    multiple
    accept=".jpg,.jpeg,.png,.webp,.stl,.obj,.ply,.glb,.csv,.tsv,.txt"
    class="sr-only"
    tabindex="-1"
    aria-label="Photographs, meshes or a table of parts"
    id="files-in"
    onchange={() => send(input.files)}
  />
  <a class="link text-note" href="/api/jobs/{desk.id}/parts.csv" onclick={table}>Parts as CSV</a>
  <button type="button" class="link text-note" onclick={keep}>Save as a kind of goods</button>
</div>
{#if said.length}
  <ul class="said text-note grid gap-1" role="status">
    {#each said as one, n (n)}<li class:wrong={one.wrong}>{one.text}</li>{/each}
  </ul>
{/if}

<style>
  .over {
    border-color: var(--twine);
  }

  .wrong {
    color: var(--stop);
  }
</style>
