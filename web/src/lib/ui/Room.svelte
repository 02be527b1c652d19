<script lang="ts" generics="Props extends Record<string, unknown>">
  // A room of the application, loaded when it is entered; a sentence where that fails.
  import type { Component } from 'svelte';

  interface Given {
    load: () => Promise<{ default: Component<Props> }>;
    /** What the room is given. */
    given: Props;
  }
  let { load, given }: Given = $props();

  let tries = $state(0);
  const loaded = $derived.by(() => {
    void tries;
    return load();
  });
</script>

{#await loaded then { default: Entered }}
  <Entered {...given} />
{:catch}
  <section class="p-6" role="alert">
    <h1>This page could not be loaded</h1>
    <p class="mt-2">
      The shop's server is not responding.
      <button type="button" class="link" onclick={() => (tries += 1)}>Try again</button>
    </p>
  </section>
{/await}
