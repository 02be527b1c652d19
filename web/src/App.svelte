<script lang="ts">
  import BenchLine from './rooms/bench/BenchLine.svelte';
  import Bench from './rooms/bench/Bench.svelte';
  import KeysSlip from './lib/ui/KeysSlip.svelte';
  import Room from './lib/ui/Room.svelte';
  import Mark from './lib/ui/Mark.svelte';
  import ThemeSwitch from './lib/ui/ThemeSwitch.svelte';
  import ToastLine from './lib/ui/ToastLine.svelte';
  import { follow, router } from './lib/router.svelte';
  import { keys } from './lib/keys.svelte';
  import { shop } from './lib/shop.svelte';

  const cutting = () => import('./rooms/cutting/Cutting.svelte');
  const kinds = () => import('./rooms/kinds/Kinds.svelte');
  const tariffs = () => import('./rooms/tariffs/Tariffs.svelte');
  const settings = () => import('./rooms/settings/Settings.svelte');
  const job = () => import('./job/JobPage.svelte');

  shop.load().catch(() => undefined); // each room says for itself when the shop does not answer
  $effect(() => keys.add([{ key: 'h', does: 'to the bench', act: () => router.go('/') }]));
</script>

<a
  class="focus:bg-sheet absolute left-[-999px] focus:top-2 focus:left-6 focus:z-60 focus:px-3 focus:py-1.5"
  href="#work">To the work</a
>
<header
  class="border-b-hair max-phone:py-2 max-phone:px-3.5 max-phone:gap-y-2.5 max-phone:gap-x-4 max-phone:flex-wrap max-phone:h-auto flex h-13.5 items-center gap-5.5 border-b px-6 py-0"
>
  <a class="mark text-lead flex items-center gap-2.25 font-bold no-underline" href="/" onclick={follow}
    ><Mark />Fardo</a
  >
  <BenchLine />
  <nav class="ml-auto flex items-center gap-5" aria-label="Rooms">
    <a
      class="text-soft hover:text-ink [&[aria-current]]:text-ink [&[aria-current]]:font-title [&[aria-current]]:border-b-twine px-0.5 py-1.5 no-underline [&[aria-current]]:border-b-2"
      href="/"
      onclick={follow}
      aria-current={router.room.name === 'bench' ? 'page' : undefined}>Bench</a
    >
    <a
      class="text-soft hover:text-ink [&[aria-current]]:text-ink [&[aria-current]]:font-title [&[aria-current]]:border-b-twine px-0.5 py-1.5 no-underline [&[aria-current]]:border-b-2"
      href="/cutting"
      onclick={follow}
      aria-current={router.room.name === 'cutting' ? 'page' : undefined}>Cutting</a
    >
    <a
      class="text-soft hover:text-ink [&[aria-current]]:text-ink [&[aria-current]]:font-title [&[aria-current]]:border-b-twine px-0.5 py-1.5 no-underline [&[aria-current]]:border-b-2"
      href="/tariffs"
      onclick={follow}
      aria-current={router.room.name === 'tariffs' ? 'page' : undefined}>Tariffs</a
    >
    <a
      class="text-soft hover:text-ink [&[aria-current]]:text-ink [&[aria-current]]:font-title [&[aria-current]]:border-b-twine px-0.5 py-1.5 no-underline [&[aria-current]]:border-b-2"
      href="/kinds"
      onclick={follow}
      aria-current={router.room.name === 'kinds' ? 'page' : undefined}>Kinds</a
    >
    <a
      class="text-soft hover:text-ink [&[aria-current]]:text-ink [&[aria-current]]:font-title [&[aria-current]]:border-b-twine px-0.5 py-1.5 no-underline [&[aria-current]]:border-b-2"
      href="/settings"
      onclick={follow}
      aria-current={router.room.name === 'settings' ? 'page' : undefined}>Settings</a
    >
    <ThemeSwitch />
  </nav>
</header>
<main class="focus:[outline:none]" id="work" tabindex="-1">
  {#if router.room.name === 'bench'}
    <Bench />
  {:else if router.room.name === 'settings'}
    <Room load={settings} given={{}} />
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
  {:else}
    <section class="p-6">
      <h1>There is nothing at this address</h1>
      <p class="mt-2"><a class="link" href="/" onclick={follow}>To the bench</a></p>
    </section>
  {/if}
</main>
<ToastLine />
<KeysSlip />
