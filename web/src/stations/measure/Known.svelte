<script lang="ts">
  // What is known of this kind of goods: where it breaks, how it is protected and arranged, what is checked.
  import { Asked } from '../../lib/asked.svelte';
  import { calls } from '../../lib/api/client';

  interface Props {
    code: string;
    of: 'taking apart' | 'protecting';
  }
  let { code, of }: Props = $props();

  // A kind that was removed has no more to say.
  const asked = new Asked(() => {
    const wanted = code;
    return () => calls.kind(wanted);
  }, false);
  const kind = $derived(asked.answer?.kind);
  const lists = $derived(
    kind
      ? [
          ['Where it breaks', kind.weak_points ?? []],
          ...(of === 'taking apart'
            ? [
                ['Check before closing', kind.checks ?? []],
                ['Mind', kind.cautions ?? []],
              ]
            : [
                ['How it is protected', kind.protection ?? []],
                ['How it lies', kind.arrangement ?? []],
              ]),
        ].filter(([, sentences]) => sentences?.length)
      : [],
  ) as [string, string[]][];
</script>

{#if kind}
  <section class="sheet text-note px-4 py-3" aria-label="About {kind.title}">
    <h2 class="text-ink text-body">{kind.title}</h2>
    <p>{kind.about}</p>
    {#each lists as [title, sentences] (title)}
      <h3 class="text-soft text-small mt-2.5">{title}</h3>
      <ul>
        {#each sentences as said (said)}<li class="pl-3 [text-indent:-12px]">{said}</li>{/each}
      </ul>
    {/each}
    {#if of === 'protecting'}
      <h3 class="text-soft text-small mt-2.5">Fill</h3>
      <p>
        {kind.fill?.loose === false ? 'No loose fill.' : 'Loose fill may be used.'}
        {kind.fill?.full === 'soft' ? 'Not too full.' : 'Packed firm.'}
        {kind.fill?.why}
      </p>
    {/if}
  </section>
{/if}

<style>
  li::before {
    content: '–';
    margin-right: 6px;
    color: var(--soft);
  }
</style>
