<script lang="ts">
  // A figure that can be asked "why": the formula, what was put in, and the rule it follows.
  import { Popover } from 'bits-ui';
  import type { Snippet } from 'svelte';
  import type { WhyView } from '../api/client';
  import Measured from './Measured.svelte';

  interface Props {
    of: string;
    why: WhyView | null | undefined;
    note?: string;
    children: Snippet;
  }
  let { of, why, note = '', children }: Props = $props();
</script>

{#if why}
  <Popover.Root>
    <Popover.Trigger class="why" data-why={of}>
      {@render children()}<span class="sr-only">: why {of}?</span>
    </Popover.Trigger>
    <Popover.Portal to="#work">
      <Popover.Content class="why-slip" sideOffset={6} collisionPadding={12} aria-label="Why {of}">
        <p class="formula">{why.formula}</p>
        {#if why.values.length}
          <dl class="border-t-hair mx-0 my-2 grid grid-cols-[1fr_auto] gap-x-4.5 gap-y-0.5 border-t pt-1.5">
            {#each why.values as [name, value], n (n)}
              <dt class="text-soft">{name}</dt>
              <dd class="figure text-right"><Measured text={value} /></dd>
            {/each}
          </dl>
        {/if}
        {#if note}<p class="rule">{note}</p>{/if}
        <p class="rule">{why.rule}</p>
      </Popover.Content>
    </Popover.Portal>
  </Popover.Root>
{:else}
  {@render children()}
{/if}

<style>
  :global(.why) {
    display: inline-block;
    padding: 0;
    border: 0;
    border-bottom: 1.5px dotted var(--edge);
    background: none;
    font: inherit;
    letter-spacing: inherit;
    color: inherit;
    text-align: inherit;
  }
  :global(.why:hover),
  :global(.why[data-state='open']) {
    border-bottom: 1.5px solid var(--twine);
  }
  :global(.why-slip) {
    z-index: 30;
    max-width: 340px;
    padding: 12px 14px;
    background: var(--sheet);
    border: 1px solid var(--edge);
    border-left: 4px solid var(--twine);
    font-size: var(--text-note);
  }
  :global(.why-slip:focus-visible) {
    outline-width: 1px;
    outline-offset: 0;
  }
  .formula {
    font-weight: 600;
  }

  .rule {
    color: var(--soft);
    font-size: var(--text-small);
    margin-top: 4px;
  }
</style>
