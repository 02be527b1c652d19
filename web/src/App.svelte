<script lang="ts">
  import { untrack } from 'svelte';
  import BenchLine from './rooms/bench/BenchLine.svelte';
  import Bench from './rooms/bench/Bench.svelte';
  import CircleHelp from '@lucide/svelte/icons/circle-question-mark';
  import HelpSlip from './lib/ui/HelpSlip.svelte';
  import Room from './lib/ui/Room.svelte';
  import Mark from './lib/ui/Mark.svelte';
  import ThemeSwitch from './lib/ui/ThemeSwitch.svelte';
  import ToastLine from './lib/ui/ToastLine.svelte';
  import { follow, router } from './lib/router.svelte';
  import { keys } from './lib/keys.svelte';
  import { shop } from './lib/shop.svelte';
  import { start } from './lib/attempt';
  import { leaveMadeUp } from './lib/madeUp';
  import { whenTold } from './lib/stream';

  const cutting = () => import('./rooms/cutting/Cutting.svelte');
  const kinds = () => import('./rooms/kinds/Kinds.svelte');
  const tariffs = () => import('./rooms/tariffs/Tariffs.svelte');
  const settings = () => import('./rooms/settings/Settings.svelte');
  const job = () => import('./job/JobPage.svelte');
  const begin = () => import('./rooms/start/Start.svelte');
  const pack = () => import('./rooms/pack/Pack.svelte');

  const ROOMS = [
    ['bench', '/', 'Bench'],
    ['cutting', '/cutting', 'Cutting'],
    ['tariffs', '/tariffs', 'Tariffs'],
    ['kinds', '/kinds', 'Kinds'],
    ['settings', '/settings', 'Settings'],
  ] as const;

  // A change of room is said, and the keyboard goes on in the new one unless that took the focus itself.
  let work: HTMLElement;
  const where = $derived(router.room.name === 'job' ? router.room.id : router.room.name);
  const station = $derived(router.room.name === 'job' ? router.room.station : '');
  const said = $derived(
    where === 'pack'
      ? 'Pack'
      : where === 'start'
        ? 'Set up the shop'
        : station
          ? `Job: ${station}`
          : (ROOMS.find(([name]) => name === where)?.[2] ?? ''),
  );
  let before = untrack(() => where);
  $effect(() => {
    const [now, moved] = [where, where !== before];
    before = now;
    if (moved && !work.contains(document.activeElement)) work.focus({ preventScroll: true });
  });

  // Each room says for itself when the shop does not answer. A shop that is new is set up first.
  shop
    .load()
    .then(() => {
      if (shop.view?.revision === 0 && router.room.name === 'bench') router.go('/start');
    })
    .catch(() => undefined);
  // Settings and tariffs hold what is being changed there; every other room goes by what the shop has now.
  $effect(() =>
    whenTold('changed', ({ settings }) => {
      if (settings && !['settings', 'start', 'tariffs'].includes(where)) start(() => shop.load());
    }),
  );
  $effect(() => keys.add([{ key: 'h', does: 'to the bench', act: () => router.go('/') }]));
</script>

<a
  class="focus:bg-sheet absolute left-[-999px] focus:top-2 focus:left-6 focus:z-60 focus:px-3 focus:py-1.5"
  href="#work">To the work</a
>
<header
  class="border-b-hair max-phone:relative max-phone:py-2 max-phone:px-3.5 max-phone:gap-y-2.5 max-phone:gap-x-4 max-phone:flex-wrap max-phone:h-auto flex h-13.5 items-center gap-5.5 border-b px-6 py-0"
>
  <a class="mark text-lead flex items-center gap-2.25 font-bold no-underline" href="/" onclick={follow}
    ><Mark />Fardo</a
  >
  <BenchLine />
  <nav
    class="max-phone:ml-0 max-phone:gap-x-3 max-phone:flex-wrap max-phone:shrink ml-auto flex shrink-0 items-center gap-x-5"
    aria-label="Rooms"
  >
    {#each ROOMS as [name, href, word] (name)}
      <a
        class="text-soft hover:text-ink [&[aria-current]]:text-ink [&[aria-current]]:font-title [&[aria-current]]:border-b-twine px-0.5 py-1.5 no-underline [&[aria-current]]:border-b-2"
        {href}
        onclick={follow}
        aria-current={router.room.name === name ? 'page' : undefined}>{word}</a
      >
    {/each}
    <span class="max-phone:absolute max-phone:top-1 max-phone:right-3.5 flex">
      <button
        class="text-soft hover:text-ink grid h-8.5 w-8.5 [place-items:center]"
        onclick={() => (keys.shown = true)}
        aria-label="Help"><CircleHelp size={18} /></button
      >
      <ThemeSwitch />
    </span>
  </nav>
</header>
{#if shop.view?.made_up === 'tried'}
  <section
    aria-label="The made-up shop"
    class="made-up bg-twine-pale border-b-hair flex flex-wrap items-center gap-x-4 gap-y-1 border-b px-6 py-1.5"
  >
    <span
      ><b class="font-title">The made-up shop.</b> Everything in it is invented; your own shop stays as it is.</span
    >
    <button class="link" onclick={leaveMadeUp}>Back to your shop</button>
  </section>
{/if}
<p class="sr-only" aria-live="polite">{said}</p>
<main class="focus:[outline:none]" id="work" tabindex="-1" bind:this={work}>
  {#if router.room.name === 'bench'}
    <Bench />
  {:else if router.room.name === 'settings'}
    <Room load={settings} given={{}} />
  {:else if router.room.name === 'start'}
    <Room load={begin} given={{}} />
  {:else if router.room.name === 'cutting'}
    <Room load={cutting} given={{}} />
  {:else if router.room.name === 'tariffs'}
    <Room load={tariffs} given={{}} />
  {:else if router.room.name === 'kinds'}
    <Room load={kinds} given={{}} />
  {:else if router.room.name === 'job'}
    {#key router.room.id}
      <Room load={job} given={{ id: router.room.id, station: router.room.station }} />
    {/key}
  {:else if router.room.name === 'pack'}
    {#key router.room.id}
      <Room load={pack} given={{ id: router.room.id }} />
    {/key}
  {:else}
    <section class="p-6">
      <h1>There is nothing at this address</h1>
      <p class="mt-2"><a class="link" href="/" onclick={follow}>To the bench</a></p>
    </section>
  {/if}
</main>
<ToastLine />
<HelpSlip />
