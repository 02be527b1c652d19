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
  <section class="rules" aria-label="House rules">
    <h2>House rules</h2>
    {#each rules as rule (rule.name)}
      <label class:out={rule.left_out}
        ><input
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
  .rules {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 2px 20px;
    margin-bottom: 12px;
    padding: 6px 12px;
    border-left: 4px solid var(--twine);
    background: var(--sheet);
    font-size: 14.5px;
  }
  label {
    cursor: pointer;
    min-height: 26px;
  }
  input {
    width: 18px;
    height: 18px;
    vertical-align: -3px;
    accent-color: var(--twine);
  }
  .out {
    color: var(--soft);
  }
</style>
