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

<a class="skip" href="#work">To the work</a>
<header>
  <a class="mark" href="/" onclick={follow}><Mark />Fardo</a>
  <BenchLine />
  <nav aria-label="Rooms">
    <a href="/" onclick={follow} aria-current={router.room.name === 'bench' ? 'page' : undefined}>Bench</a>
    <a href="/cutting" onclick={follow} aria-current={router.room.name === 'cutting' ? 'page' : undefined}
      >Cutting</a
    >
    <a href="/tariffs" onclick={follow} aria-current={router.room.name === 'tariffs' ? 'page' : undefined}
      >Tariffs</a
    >
    <a href="/kinds" onclick={follow} aria-current={router.room.name === 'kinds' ? 'page' : undefined}
      >Kinds</a
    >
    <a href="/settings" onclick={follow} aria-current={router.room.name === 'settings' ? 'page' : undefined}
      >Settings</a
    >
    <ThemeSwitch />
  </nav>
</header>
<main id="work" tabindex="-1">
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

<style>
  header {
    display: flex;
    align-items: center;
    gap: 22px;
    height: 54px;
    padding: 0 24px;
    border-bottom: 1px solid var(--hair);
  }
  .mark {
    display: flex;
    gap: 9px;
    align-items: center;
    font-weight: 700;
    font-size: 18px;
    text-decoration: none;
  }
  nav {
    margin-left: auto;
    display: flex;
    gap: 20px;
    align-items: center;
  }
  nav a {
    color: var(--soft);
    text-decoration: none;
    padding: 6px 2px;
  }
  nav a:hover {
    color: var(--ink);
  }
  nav a[aria-current] {
    color: var(--ink);
    font-weight: 650;
    border-bottom: 2px solid var(--twine);
  }
  .skip {
    position: absolute;
    left: -999px;
  }
  .skip:focus {
    left: 24px;
    top: 8px;
    z-index: 60;
    background: var(--sheet);
    padding: 6px 12px;
  }
  main:focus {
    outline: none;
  }
  @media (max-width: 700px) {
    header {
      flex-wrap: wrap;
      height: auto;
      gap: 10px 16px;
      padding: 8px 14px;
    }
  }
</style>
