<script lang="ts">
  // A long list picked from by typing part of a name: arrow keys go through what is left, Enter picks.
  import { Combobox } from 'bits-ui';

  interface Props {
    id: string;
    label: string;
    /** Each by its code, with the name that is shown. */
    options: readonly (readonly [string, string])[];
    pick: (code: string) => void;
  }
  let { id, label, options, pick }: Props = $props();

  let typed = $state('');
  let open = $state(false);
  let value = $state('');
  const words = $derived(typed.trim().toLowerCase().split(/\s+/));
  const left = $derived(
    options.filter(([, name]) => words.every((word) => name.toLowerCase().includes(word))),
  );

  function picked(code: string): void {
    if (!code) return;
    value = '';
    typed = '';
    open = false;
    pick(code);
  }
</script>

<Combobox.Root type="single" bind:open bind:value={() => value, picked} inputValue={typed}>
  <Combobox.Input
    {id}
    class="field h-9.5 w-59"
    aria-label={label}
    placeholder={label}
    autocomplete="off"
    spellcheck="false"
    oninput={(event) => {
      typed = event.currentTarget.value;
      open = true;
    }}
    onclick={() => (open = true)}
  />
  <Combobox.Portal>
    <Combobox.Content
      class="border-edge bg-sheet z-50 max-h-80 w-(--bits-combobox-anchor-width) overflow-y-auto border"
      sideOffset={2}
    >
      {#each left as [code, name] (code)}
        <Combobox.Item
          class="data-highlighted:bg-twine-pale cursor-pointer px-2.5 py-2"
          value={code}
          label={name}>{name}</Combobox.Item
        >
      {:else}
        <p class="text-soft px-2.5 py-2">Nothing is called so.</p>
      {/each}
    </Combobox.Content>
  </Combobox.Portal>
</Combobox.Root>
