<script lang="ts">
  // A job: its twine across the top, the docket always in sight, and one working surface for the knot in hand.
  import { onDestroy, tick } from 'svelte';
  import { attempt } from '../lib/attempt';
  import { keys } from '../lib/keys.svelte';
  import { KEYS, router, STATIONS, type Station } from '../lib/router.svelte';
  import Arrange from '../stations/arrange/Arrange.svelte';
  import Box from '../stations/box/Box.svelte';
  import Measure from '../stations/measure/Measure.svelte';
  import Price from '../stations/price/Price.svelte';
  import Protect from '../stations/protect/Protect.svelte';
  import DocketSlip from './DocketSlip.svelte';
  import { JobDesk } from './job.svelte';
  import SavedState from './SavedState.svelte';
  import Twine from './Twine.svelte';
  import { isBlank } from './typed';
  import { listen } from './readings';

  interface Props {
    id: string;
    station: Station;
  }
  let { id, station }: Props = $props();

  let desk = $state<JobDesk | null>(null);
  let trouble = $state('');

  async function open(): Promise<void> {
    await attempt(
      async () => {
        desk = await JobDesk.open(id);
        await tick();
        // A job just begun is typed from its name on.
        if (station === 'measure' && desk.typed.parts.every(isBlank))
          document.getElementById(desk.typed.title ? 'part-0-name' : 'title')?.focus();
      },
      (said) => (trouble = said),
    );
  }
  void open();
  onDestroy(() => desk?.leave());

  const hidden = () => (document.visibilityState === 'hidden' ? desk?.leave() : desk?.saver.back());
  $effect(() => {
    document.addEventListener('visibilitychange', hidden);
    return () => document.removeEventListener('visibilitychange', hidden);
  });
  $effect(() => listen());
  $effect(() =>
    keys.add(
      STATIONS.map((name) => ({
        key: KEYS[name],
        does: `to ${name}`,
        act: () => router.go(`/jobs/${id}/${name}`),
      })),
    ),
  );
</script>

<svelte:head><title>{desk?.typed.title || 'Untitled job'} · Fardo</title></svelte:head>

{#if desk}
  <div class="page">
    <h1 class="sr-only">{desk.typed.title || 'Untitled job'}</h1>
    <div class="title">
      <label class="sr-only" for="title">Name of the job</label>
      <input
        id="title"
        bind:value={desk.typed.title}
        oninput={() => desk?.touch()}
        placeholder="Name this job"
        maxlength="200"
        autocomplete="off"
      />
      <SavedState {desk} />
    </div>
    <Twine {id} {station} knots={desk.work.view?.knots ?? []} />
    <div class="surface">
      {#if desk.work.view?.beyond}<p class="beyond">{desk.work.view.beyond}</p>{/if}
      {#if station === 'measure'}
        <Measure {desk} />
      {:else if station === 'protect'}
        <Protect {desk} />
      {:else if station === 'arrange'}
        <Arrange {desk} />
      {:else if station === 'box'}
        <Box {desk} />
      {:else}
        <Price {desk} />
      {/if}
    </div>
    <DocketSlip {desk} />
  </div>
{:else if trouble}
  <section class="p-6">
    <h1>This job cannot be shown</h1>
    <p class="mt-2">{trouble}</p>
  </section>
{/if}

<style>
  .page {
    max-width: 1280px;
    min-height: calc(100vh - 54px);
    margin: 0 auto;
    padding: 0 24px 20px;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 284px;
    grid-template-rows: auto 88px 1fr;
    column-gap: 22px;
  }
  .title {
    grid-column: 1 / -1;
    display: flex;
    align-items: center;
    gap: 18px;
    padding-top: 8px;
  }
  .title input {
    flex: 1;
    min-width: 0;
    font-size: 22px;
    font-weight: 650;
    letter-spacing: -0.01em;
    padding: 2px 6px;
    margin-left: -6px;
    background: none;
    border: 0;
    border-bottom: 1px solid transparent;
    text-overflow: ellipsis;
  }
  .title input::placeholder {
    color: var(--soft);
    opacity: 1;
  }
  .title input:hover {
    border-bottom-color: var(--edge);
  }
  .surface {
    grid-column: 1;
    grid-row: 3;
    min-width: 0;
  }
  .beyond {
    padding: 16px;
    background: var(--amber-pale);
    border-left: 4px solid var(--amber-mark);
  }
  @media (max-width: 860px) {
    .page {
      grid-template-columns: minmax(0, 1fr);
      grid-template-rows: auto 88px auto auto;
      padding: 0 14px 20px;
    }
  }
</style>
