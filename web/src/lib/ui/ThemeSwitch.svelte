<script lang="ts">
  import Moon from '@lucide/svelte/icons/moon';
  import Sun from '@lucide/svelte/icons/sun';

  function now(): boolean {
    const set = document.documentElement.dataset.theme;
    return set ? set === 'dark' : matchMedia('(prefers-color-scheme: dark)').matches;
  }
  let dark = $state(now());

  function turn(): void {
    dark = !dark;
    const theme = dark ? 'dark' : 'light';
    document.documentElement.dataset.theme = theme;
    localStorage.setItem('fardo.theme', theme);
  }
</script>

<button
  class="text-soft hover:text-ink grid h-8.5 w-8.5 [place-items:center]"
  onclick={turn}
  aria-label={dark ? 'Use the light theme' : 'Use the dark theme'}
>
  {#if dark}<Sun size={18} />{:else}<Moon size={18} />{/if}
</button>
