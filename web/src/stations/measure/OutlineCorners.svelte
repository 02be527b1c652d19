<script lang="ts">
  // The corners of a flat outline: typed as a list, or clicked on a photograph and scaled by one known length. The
  // photograph stays in this window; only the corners go on.
  import type { JobDesk } from '../../job/job.svelte';
  import type { TypedPart } from '../../job/typed';
  import { calls } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';

  interface Props {
    desk: JobDesk;
    part: TypedPart;
    problem: string;
  }
  let { desk, part, problem }: Props = $props();

  type Spot = [number, number];
  type Corners = { points?: (string | number)[][] };

  let typed = $state(said());
  let own = ''; // what this field wrote last, so that a change from elsewhere is shown
  let picture = $state('');
  let clicked = $state<Spot[]>([]);
  let scale = $state<Spot[]>([]);
  let known = $state('');
  let wrong = $state('');
  let step = $derived(scale.length < 2 ? 'scale' : 'corners');

  function said(): string {
    const points = (part.shape as Corners).points ?? [];
    const words = (value: string | number) => (typeof value === 'number' ? `${value} mm` : value);
    return points.map((point) => point.map(words).join(', ')).join('\n');
  }
  $effect(() => {
    const now = said();
    if (now !== own) typed = now;
    own = now;
  });

  function take(points: (string | number)[][]): void {
    part.shape = { kind: 'outline', points };
    own = said();
    desk.parts.measured(part);
  }

  /** A corner a line: along, across. A line begun and not finished waits. */
  function type(): void {
    const rows = typed
      .split('\n')
      .map((line) => line.split(/[,;]\s*/).map((one) => one.trim()))
      .filter((row) => row.length === 2 && row.every((one) => one));
    take(rows);
  }

  function open(event: Event): void {
    const file = (event.target as HTMLInputElement).files?.[0];
    if (!file) return;
    if (picture) URL.revokeObjectURL(picture);
    picture = URL.createObjectURL(file);
    clicked = [];
    scale = [];
    wrong = '';
  }
  $effect(() => () => {
    if (picture) URL.revokeObjectURL(picture);
  });

  function close(): void {
    if (picture) URL.revokeObjectURL(picture);
    picture = '';
    wrong = '';
  }

  function click(event: MouseEvent): void {
    const image = event.currentTarget as HTMLElement;
    const box = image.getBoundingClientRect();
    const spot: Spot = [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height];
    const shape: Spot = [spot[0] * box.width, spot[1] * box.height];
    if (step === 'scale') scale = [...scale, shape];
    else clicked = [...clicked, shape];
  }

  /** The shop reads the known length, so that every way of typing it is understood here as everywhere. */
  async function trace(): Promise<void> {
    const [a, b] = scale;
    if (!a || !b || clicked.length < 3) return;
    try {
      const probe = { shape: { kind: 'box', length: known, width: '1 in', height: '1 in' } };
      const read = await calls.shape(probe as never, new AbortController().signal);
      const mm = read.sizes_mm[0] / Math.hypot(a[0] - b[0], a[1] - b[1]);
      const bottom = Math.max(...clicked.map((spot) => spot[1]));
      const left = Math.min(...clicked.map((spot) => spot[0]));
      take(
        clicked.map(([x, y]) => [
          Number(((x - left) * mm).toFixed(1)),
          Number(((bottom - y) * mm).toFixed(1)),
        ]),
      );
      typed = said();
      close();
    } catch (fault) {
      wrong = fault instanceof Error ? fault.message : String(fault);
    }
  }
</script>

<div class="mt-1.5 grid justify-items-start gap-1.5 outline">
  <label class="text-soft text-small" for="corners"
    >Corners in order: along, across, {shop.units}; one a line</label
  >
  <textarea
    class="border-edge bg-sheet text-note w-full border px-2 py-1.5 font-mono"
    id="corners"
    rows="5"
    spellcheck="false"
    bind:value={typed}
    oninput={type}
    placeholder="0, 0&#10;12 1/2, 0&#10;9, 6"></textarea>
  {#if problem}<p class="wrong text-stop text-small">{problem}</p>{/if}
  <label
    class="btn text-ink text-small cursor-pointer focus-within:[outline:2.5px_solid_var(--twine)] focus-within:[clip-path:none]"
  >
    Trace a photograph
    <input type="file" accept="image/*" class="sr-only" onchange={open} />
  </label>
  {#if picture}
    <div
      class="trace sheet fixed top-10 right-10 bottom-10 left-10 z-45 grid grid-rows-[auto_auto_1fr] justify-items-start gap-2.5 overflow-auto px-4.5 py-3.5"
      role="dialog"
      aria-label="Trace a photograph"
    >
      <div class="flex w-full flex-wrap items-center gap-x-3 gap-y-2">
        <p class="how text-body flex-[1_0_300px] font-semibold" role="status">
          {#if step === 'scale'}
            Click both ends of a length you know ({scale.length} of 2).
          {:else}
            Now its corners, all the way round ({clicked.length}).
          {/if}
        </p>
        <label class="text-soft text-small" for="known">Known length, {shop.units}</label>
        <input
          id="known"
          class="field figure w-27.5"
          data-measure="length"
          bind:value={known}
          autocomplete="off"
        />
        <button type="button" class="btn" onclick={() => (clicked.length ? clicked.pop() : scale.pop())}
          >Back one</button
        >
        <button
          type="button"
          class="btn btn-main"
          disabled={clicked.length < 3 || !known.trim()}
          onclick={trace}>Take these corners</button
        >
        <button type="button" class="btn" onclick={close}>Close</button>
      </div>
      {#if wrong}<p class="wrong text-stop text-small" role="alert">{wrong}</p>{/if}
      <!-- Corners can be typed as well; clicking is the quicker way where there is a photograph. -->
      <!-- svelte-ignore a11y_click_events_have_key_events -->
      <!-- svelte-ignore a11y_no_static_element_interactions -->
      <div class="photo relative w-fit cursor-crosshair" onclick={click}>
        <img
          class="block max-h-[calc(100vh_-_190px)] max-w-full"
          src={picture}
          alt="Photograph to trace"
          draggable="false"
        />
        <svg aria-hidden="true">
          {#if scale.length === 2}<path d="M{scale.map((s) => s.join(' ')).join('L')}" class="known" />{/if}
          {#each scale as spot, k (k)}<circle cx={spot[0]} cy={spot[1]} r="4" class="known" />{/each}
          {#if clicked.length > 1}<path d="M{clicked.map((s) => s.join(' ')).join('L')}Z" class="way" />{/if}
          {#each clicked as spot, k (k)}<circle cx={spot[0]} cy={spot[1]} r="4" class="way" />{/each}
        </svg>
      </div>
    </div>
  {/if}
</div>

<style>
  svg {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
    pointer-events: none;
  }
  .way {
    fill: color-mix(in srgb, var(--twine) 30%, transparent);
    stroke: var(--twine);
    stroke-width: 2;
  }
  .known {
    fill: var(--amber-mark);
    stroke: var(--amber-mark);
    stroke-width: 2;
    stroke-dasharray: 5 3;
  }
</style>
