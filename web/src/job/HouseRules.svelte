<script lang="ts">
  // The house rules that hold for this job, what follows from each, and which of them it leaves out.
  import type { JobDesk } from './job.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();
  const rules = $derived(desk.work.view?.rules ?? []);

  function keep(name: string, holds: boolean): void {
    const others = desk.typed.rulesLeftOut.filter((one) => one !== name);
    desk.typed.rulesLeftOut = holds ? others : [...others, name];
    desk.touch();
  }
</script>

{#if rules.length}
  <section
    class="rules border-l-twine bg-sheet text-note mb-3 flex flex-wrap items-baseline gap-x-5 gap-y-0.5 border-l-4 px-3 py-1.5"
    aria-label="House rules"
  >
    <h2>House rules</h2>
    {#each rules as rule (rule.name)}
      <label class="min-h-6.5 cursor-pointer" class:out={rule.left_out}
        ><input
          class="accent-twine h-4.5 w-4.5 [vertical-align:-3px]"
          type="checkbox"
          checked={!rule.left_out}
          onchange={(event) => keep(rule.name, event.currentTarget.checked)}
        />
        <b>{rule.name}</b>
        {rule.does}</label
      >
    {/each}
  </section>
{/if}

<style>
  .out {
    color: var(--soft);
  }
</style>
