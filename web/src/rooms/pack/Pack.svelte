<script lang="ts">
  // Pack mode: what to fetch, then one step a screen, readable from two metres; space or a tap ticks it and goes on.
  import { onDestroy, tick as nextTick, untrack } from 'svelte';
  import { attempt, start } from '../../lib/attempt';
  import { calls, type Packing } from '../../lib/api/client';
  import { keys } from '../../lib/keys.svelte';
  import { follow } from '../../lib/router.svelte';
  import InBox from '../../lib/draw/InBox.svelte';
  import Measured from '../../lib/ui/Measured.svelte';
  import { listen } from '../../job/readings';
  import { Sending } from '../../lib/sending.svelte';
  import { shop } from '../../lib/shop.svelte';
  import { whenTold } from '../../lib/stream';
  import AgainstPlan from '../../stations/sent/AgainstPlan.svelte';
  import ClosedFields from '../../stations/sent/ClosedFields.svelte';
  import Prints from '../../stations/sent/Prints.svelte';
  import TrackingNumber from '../../stations/sent/TrackingNumber.svelte';
  import { dated } from '../bench/groups';
  import HandOver from '../../stations/sent/HandOver.svelte';
  import StepNote from './StepNote.svelte';
  import { spent, TIMER } from './ticked';
  import { Ticks } from './ticks.svelte';

  interface Props {
    id: string;
  }
  let { id }: Props = $props();

  let packing = $state<Packing | null>(null);
  let trouble = $state('');
  const ticks = new Ticks(untrack(() => id));
  const sending = new Sending(untrack(() => id));
  /** The step that is looked at; before the first stands what to fetch. */
  let at = $state(-1);
  let now = $state(Date.now());

  async function open(): Promise<void> {
    await attempt(
      async () => {
        [packing] = await Promise.all([calls.packing(id), sending.load(), shop.ready()]);
        ticks.known = packing.ticks;
        at = ticks.all.length ? firstOpen() : -1;
        void ticks.send();
      },
      (said) => (trouble = said),
    );
  }
  void open();

  const steps = $derived(packing?.steps ?? []);
  const step = $derived(steps[at]);
  const stepIs = (name: string) => step?.key.split(', ', 1)[0] === name;
  const isDone = $derived(step !== undefined && ticks.done.has(step.key));
  const doneCount = $derived(steps.filter((one) => ticks.done.has(one.key)).length);
  const left = $derived(
    Math.ceil(steps.reduce((sum, one) => (ticks.done.has(one.key) ? sum : sum + one.minutes), 0)),
  );
  const running = $derived(ticks.done.has(TIMER));
  const seconds = $derived(Math.floor(spent(ticks.all, now)));
  const clock = $derived(`${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`);
  /** The box as it is once the step is done. */
  const layout = $derived.by(() => {
    const count = step?.goes_in ?? null;
    if (!packing || count === null) return null;
    const there = packing.things.slice(0, count);
    return {
      inside_mm: packing.inside_mm,
      parts: there.filter((one) => !one.extra),
      extras: there.filter((one) => one.extra),
    };
  });

  /** A number stays with its fraction at the end of a line. */
  const unbroken = (words: string) => words.replace(/(\d) (\d+\/\d+)/g, '$1\u00a0$2');

  function firstOpen(): number {
    const open = packing?.steps.findIndex((one) => !ticks.done.has(one.key)) ?? -1;
    return open < 0 ? (packing?.steps.length ?? 0) : open;
  }
  function begin(): void {
    if (!running) ticks.tick(TIMER, true);
    at = firstOpen();
  }
  function tick(): void {
    if (at < 0) {
      begin();
      return;
    }
    if (!step) return;
    if (!running) ticks.tick(TIMER, true);
    if (stepIs('hand over') && !isDone && sending.typed && !sending.typed.on) {
      sending.typed.on = dated(new Date());
      void sending.settle();
    }
    ticks.tick(step.key, !isDone);
    if (ticks.done.has(step.key)) go(at + 1);
  }
  function go(to: number): void {
    at = Math.min(Math.max(to, -1), steps.length);
    if (at === steps.length && running && doneCount === steps.length) ticks.tick(TIMER, false);
  }

  $effect(() =>
    keys.add([
      { key: ' ', does: 'tick the packing step', act: tick },
      { key: 'ArrowLeft', does: 'back a step', act: () => go(at - 1) },
      { key: 'ArrowRight', does: 'on without a tick', act: () => go(at + 1) },
    ]),
  );
  $effect(() => {
    const timer = setInterval(() => (now = Date.now()), 1000);
    return () => clearInterval(timer);
  });
  $effect(() => {
    const back = () => void ticks.send();
    addEventListener('online', back);
    return () => removeEventListener('online', back);
  });
  $effect(() => listen());
  $effect(() =>
    whenTold('changed', ({ jobs, at_the_bench, settings, whole }) => {
      if (at_the_bench || whole) {
        void ticks.look();
        start(() => sending.heard());
      }
      if (settings || whole || jobs.some((one) => one.id === id))
        start(async () => (packing = await calls.packing(id)));
    }),
  );
  onDestroy(() => {
    ticks.stop();
    sending.leave();
  });

  // What a scale or a tape reads goes into the field that has the focus.
  $effect(() => {
    const first = stepIs('weigh') ? 'closed-weight' : stepIs('measure') ? 'closed-length' : '';
    if (first) void nextTick().then(() => document.getElementById(first)?.focus());
  });

  /** What the step asks for is typed: it is saved, ticked, and the next is next. */
  function typedIn(): void {
    void sending.settle();
    if (!isDone) tick();
  }
</script>

<svelte:head><title>Pack: {packing?.title ?? ''} · Fardo</title></svelte:head>

{#if packing}
  <section
    class="pack mx-auto grid min-h-[calc(100vh_-_54px)] max-w-[1232px] grid-cols-[minmax(0,1fr)] grid-rows-[auto_1fr_auto] px-6 pt-4 pb-5"
  >
    <div>
      <div class="flex flex-wrap items-baseline gap-x-5 gap-y-1">
        <h1>{packing.title}</h1>
        <p class="text-soft">{packing.box}</p>
        <a class="link" href="/jobs/{id}/box" onclick={follow}>To the job</a>
        <p class="progress ml-auto" role="status">
          {doneCount} of {steps.length} done, about {left} min left
        </p>
        <p class="figure">{clock}</p>
        <button class="link" onclick={() => ticks.tick(TIMER, !running)}
          >{running ? 'Pause' : 'Run the timer'}</button
        >
      </div>
      {#if ticks.waiting.length && ticks.trouble}
        <p class="bg-amber-pale border-l-amber-mark mt-2 border-l-4 px-3 py-1.5" role="status">
          {ticks.trouble} Your ticks are kept in this browser and sent later.
        </p>
      {/if}

      {#if !packing.chosen}
        <p class="bg-amber-pale border-l-amber-mark mt-2 border-l-4 px-3 py-1.5">
          No box is chosen yet: these steps are for the lowest total. <a
            class="link"
            href="/jobs/{id}/box"
            onclick={follow}>Choose the box</a
          >
        </p>
      {/if}
    </div>

    {#if at < 0}
      <div class="fetch py-5">
        <h2 class="text-figure text-ink font-title mb-3">Fetch</h2>
        <div class="grid grid-cols-[repeat(auto-fit,minmax(240px,1fr))] gap-x-8 gap-y-5">
          {#each packing.fetch as place (place.place)}
            <div>
              <h3 class="font-title text-lead border-b-hair border-b pb-1">{place.place}</h3>
              <ul>
                {#each place.items as item (item.name + item.amount)}
                  <li class="border-b-hair text-lead border-b py-1.5">
                    {item.name}{#if item.amount}, <b><Measured text={item.amount} /></b>{/if}
                    {#if item.short}<span class="text-stop font-title block">{item.short} short</span>{/if}
                  </li>
                {/each}
              </ul>
            </div>
          {/each}
        </div>
      </div>
    {:else if step}
      <div
        class="max-narrow:grid-cols-1 grid grid-cols-[minmax(0,1fr)_minmax(0,420px)] gap-x-10 gap-y-4 py-6"
      >
        <div>
          <p class="text-soft text-lead">{step.section}, step {at + 1} of {steps.length}</p>
          <p class="do font-title mt-2" aria-live="polite">{unbroken(step.do)}</p>
          {#if step.people === 2}<p
              class="bg-amber-pale border-l-amber-mark text-title mt-4 border-l-4 px-4 py-2"
            >
              Two people
            </p>{/if}
          {#if step.takes.length}
            <ul class="takes mt-4 grid gap-1.5">
              {#each step.takes as one, n (n)}<li>{unbroken(one)}</li>{/each}
            </ul>
          {/if}
          {#if step.count.length}
            <ul class="takes mt-4 grid gap-1.5">
              {#each step.count as one (one.name)}<li><b class="figure">{one.count}</b> {one.name}</li>{/each}
            </ul>
          {/if}
          {#each step.says as says (says)}<p class="text-head mt-3">{says}</p>{/each}
          {#if stepIs('weigh') || stepIs('measure')}
            <div class="mt-4 max-w-160">
              <ClosedFields {sending} large what={stepIs('weigh') ? 'weight' : 'sides'} done={typedIn} />
              <p id="sending-faults" class="text-stop mt-1 min-h-6" role="status">{sending.trouble}</p>
              <AgainstPlan {sending} />
            </div>
          {:else if stepIs('label')}
            <div class="mt-4 max-w-100"><TrackingNumber {sending} /></div>
            <Prints {id} label settle={() => sending.settle()} />
          {:else if stepIs('hand over')}
            <div class="mt-4"><HandOver {sending} /></div>
          {/if}
          {#if step.tool}<p class="text-lead text-soft mt-3">Tool: {step.tool}</p>{/if}
          {#key step.key}<StepNote {ticks} step={step.key} done={isDone} />{/key}
          {#each step.cautions as caution (caution)}
            <p class="bg-amber-pale border-l-amber-mark text-lead mt-3 border-l-4 px-4 py-2">{caution}</p>
          {/each}
        </div>
        {#if layout}<InBox {layout} sides={packing.sides} />{/if}
      </div>
    {:else}
      <div class="py-8">
        <p class="do font-title">
          {doneCount === steps.length
            ? 'Packed and handed over.'
            : `${steps.length - doneCount} steps are not ticked.`}
        </p>
        {#if doneCount < steps.length}
          <button class="btn mt-4" onclick={() => (at = firstOpen())}>To the first of them</button>
        {/if}
      </div>
    {/if}

    <div class="grid grid-cols-[minmax(0,1fr)_minmax(0,2fr)_minmax(0,1fr)] gap-3">
      <button class="btn big" disabled={at < 0} onclick={() => go(at - 1)}>Back</button>
      {#if at < 0}
        <button class="btn btn-main big" onclick={begin}
          >{ticks.all.length ? 'Go on packing' : 'Start packing'}</button
        >
      {:else}
        <button class="btn btn-main big" disabled={!step} onclick={tick}
          >{isDone ? 'Not done after all' : 'Done'}</button
        >
      {/if}
      <button class="btn big" disabled={at >= steps.length} onclick={() => go(at + 1)}>Skip</button>
    </div>
  </section>
{:else if trouble}
  <section class="p-6">
    <h1>This job cannot be packed yet</h1>
    <p class="mt-2">{trouble}</p>
    <p class="mt-2"><a class="link" href="/jobs/{id}" onclick={follow}>To the job</a></p>
  </section>
{/if}

<style>
  .do {
    font-size: clamp(28px, 3.6vw, 46px);
    line-height: 1.2;
  }
  .takes {
    font-size: clamp(20px, 2.2vw, 30px);
    line-height: 1.25;
  }
  .big {
    justify-content: center;
    min-height: 72px;
    padding: 0 8px;
    font-size: var(--text-head);
  }
</style>
