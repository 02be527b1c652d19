<script lang="ts">
  // A job: its twine across the top, the docket always in sight, and one working surface for the knot in hand.
  import { onDestroy, tick, untrack } from 'svelte';
  import { attempt, start } from '../lib/attempt';
  import { keys } from '../lib/keys.svelte';
  import { KEYS, router, STATIONS, type Station } from '../lib/router.svelte';
  import Arrange from '../stations/arrange/Arrange.svelte';
  import Box from '../stations/box/Box.svelte';
  import Measure from '../stations/measure/Measure.svelte';
  import Price from '../stations/price/Price.svelte';
  import Protect from '../stations/protect/Protect.svelte';
  import Sent from '../stations/sent/Sent.svelte';
  import { Sending } from '../lib/sending.svelte';
  import DocketSlip from './DocketSlip.svelte';
  import { JobDesk } from './job.svelte';
  import Practice from './practice/Practice.svelte';
  import SavedState from './SavedState.svelte';
  import Twine from './Twine.svelte';
  import { isBlank } from './typed';
  import { listen } from './readings';
  import { whenTold } from '../lib/stream';

  interface Props {
    id: string;
    station: Station;
  }
  let { id, station }: Props = $props();

  let desk = $state<JobDesk | null>(null);
  const sending = new Sending(untrack(() => id));
  /** All seven: the first five as the job is typed, and once it is packed all as it is saved. */
  const knots = $derived.by(() => {
    const saved = sending.view?.knots ?? [];
    const isPacked = saved[5]?.state === 'tied';
    return isPacked ? saved : [...(desk?.work.view?.knots ?? []), ...saved.slice(-2)];
  });
  let trouble = $state('');

  let left = false;
  async function open(): Promise<void> {
    await attempt(
      async () => {
        const opened = await JobDesk.open(id);
        if (left) {
          opened.leave();
          return;
        }
        desk = opened;
        await tick();
        // A job just begun is typed from its name on.
        if (station === 'measure' && desk.typed.parts.every(isBlank))
          document.getElementById(desk.typed.title ? 'part-0-name' : 'title')?.focus();
      },
      (said) => (trouble = said),
    );
  }
  void open();
  onDestroy(() => {
    left = true;
    desk?.leave();
    sending.leave();
  });

  // The last knots follow what is saved: they are asked for again whenever the job is.
  $effect(() => {
    if (desk?.saver.revision) start(() => sending.load());
  });

  /** What is packed is the job as it is saved. */
  function pack(event?: MouseEvent): void {
    event?.preventDefault();
    start(async () => {
      if (await desk?.saver.settle()) router.go(`/jobs/${id}/pack`);
    });
  }

  /** From the name on to the first part: what is between is reached the other way round. */
  function toParts(event: KeyboardEvent): void {
    const first = document.getElementById('part-0-name');
    if (!first || event.shiftKey || (event.key !== 'Tab' && event.key !== 'Enter')) return;
    event.preventDefault();
    first.focus();
  }

  function hidden(): void {
    if (document.visibilityState === 'hidden') {
      desk?.leave();
      sending.leave();
    } else {
      void desk?.saver.back();
    }
  }
  $effect(() => {
    document.addEventListener('visibilitychange', hidden);
    return () => document.removeEventListener('visibilitychange', hidden);
  });
  $effect(() => listen());
  $effect(() =>
    whenTold('changed', (told) => {
      if (!desk) return;
      if (told.settings) void desk.work.ask();
      if (told.at_the_bench || told.whole) start(() => sending.heard());
      const { saver } = desk;
      start(() => saver.heard(told));
    }),
  );
  $effect(() =>
    keys.add([
      ...STATIONS.map((name) => ({
        key: KEYS[name],
        does: `to ${name}`,
        act: () => router.go(`/jobs/${id}/${name}`),
      })),
      { key: 'k', does: 'to pack', act: () => pack() },
    ]),
  );
</script>

<svelte:head><title>{desk?.typed.title || 'Untitled job'} · Fardo</title></svelte:head>

{#if desk}
  <div
    class="max-narrow:px-3.5 max-narrow:pt-0 max-narrow:pb-20 max-narrow:grid-cols-[minmax(0,1fr)] max-narrow:grid-rows-[auto_88px_auto] mx-auto my-0 grid min-h-[calc(100vh_-_54px)] max-w-[1280px] grid-cols-[minmax(0,1fr)_284px] grid-rows-[auto_88px_1fr] gap-x-5.5 px-6 pt-0 pb-5"
  >
    <h1 class="sr-only">{desk.typed.title || 'Untitled job'}</h1>
    <div class="title col-span-full flex flex-wrap items-center gap-x-4.5 pt-2">
      <label class="sr-only" for="title">Name of the job</label>
      <input
        class="font-title hover:border-b-edge text-title max-phone:basis-full max-phone:min-w-0 -ml-1.5 min-w-70 flex-1 border-t-0 border-r-0 border-b border-l-0 border-b-transparent bg-transparent px-1.5 py-0.5 tracking-[-0.01em] text-ellipsis"
        id="title"
        bind:value={desk.typed.title}
        oninput={() => desk?.touch()}
        onkeydown={toParts}
        placeholder="Name this job"
        maxlength="200"
        autocomplete="off"
      />
      <SavedState {desk} />
    </div>
    <Twine {id} {station} {knots} {pack} />
    <div class="col-start-1 row-start-3 min-w-0">
      {#if desk.work.view?.beyond}<p class="bg-amber-pale border-l-amber-mark border-l-4 p-4">
          {desk.work.view.beyond}
        </p>{/if}
      {#if desk.base.practice && station !== 'sent'}<Practice {desk} {station} />{/if}
      {#if station === 'measure'}
        <Measure {desk} />
      {:else if station === 'protect'}
        <Protect {desk} />
      {:else if station === 'arrange'}
        <Arrange {desk} />
      {:else if station === 'box'}
        <Box {desk} />
      {:else if station === 'price'}
        <Price {desk} />
      {:else}
        <Sent {desk} {sending} {pack} />
      {/if}
    </div>
    <DocketSlip {desk} {pack} />
  </div>
{:else if trouble}
  <section class="p-6">
    <h1>This job cannot be shown</h1>
    <p class="mt-2">{trouble}</p>
  </section>
{/if}

<style>
  .title input::placeholder {
    color: var(--soft);
    opacity: 1;
  }
</style>
