<script lang="ts">
  // The closed parcel by scale and tape, as a row of fields.
  import { live } from '../../lib/live.svelte';
  import Field from '../../lib/ui/Field.svelte';
  import { shop } from '../../lib/shop.svelte';
  import type { Sending } from '../../lib/sending.svelte';

  interface Props {
    sending: Sending;
    what?: 'weight' | 'sides' | 'both';
    large?: boolean;
    /** Enter in the last field. */
    done?: () => void;
  }
  let { sending, what = 'both', large = false, done = undefined }: Props = $props();

  const inches = $derived(shop.units === 'in');
  const SIDES = [
    ['length', 'Length'],
    ['width', 'Width'],
    ['height', 'Height'],
  ] as const;
  const problem = (path: string) => (sending.field.startsWith(path) ? sending.trouble : '');
  let row = $state<HTMLElement>();

  /** Enter goes on to the next field; space in an empty one passes the step, as everywhere in pack mode. */
  function next(event: KeyboardEvent): void {
    if (event.key === ' ' && done && !(event.target as HTMLInputElement).value) {
      event.preventDefault();
      (event.target as HTMLInputElement).blur();
      done();
    }
    if (event.key !== 'Enter') return;
    event.preventDefault();
    const fields = [...(row?.querySelectorAll('input') ?? [])];
    const after = fields[fields.indexOf(event.target as HTMLInputElement) + 1];
    if (after) after.focus();
    else {
      (event.target as HTMLInputElement).blur();
      done?.();
    }
  }
</script>

{#if sending.typed}
  {#if what !== 'sides'}
    <p class="text-soft figure min-h-6" role="status">
      {#if live.state === 'overload'}<span class="text-stop font-title"
          >The scale is overloaded: take the parcel off.</span
        >{:else if live.state === 'settling'}Scale: {live.scale}, settling{/if}
    </p>
  {/if}
  <div
    bind:this={row}
    class="max-phone:grid-cols-2 mt-1.5 grid {large
      ? 'grid-cols-[repeat(auto-fit,minmax(150px,1fr))]'
      : 'grid-cols-4'} gap-2.5"
    onkeydown={next}
    role="presentation"
  >
    {#if what !== 'sides'}
      <Field
        id="closed-weight"
        label="Weight by the scale"
        measure
        {large}
        takes="mass"
        faults="sending-faults"
        note={false}
        bind:value={sending.typed.weight}
        placeholder={inches ? '14 lb 6 oz' : '6.5 kg'}
        problem={problem('closed.weight')}
        oninput={() => sending.touch()}
      />
    {/if}
    {#if what !== 'weight'}
      {#each SIDES as [side, label], n (side)}
        <Field
          id="closed-{side}"
          label="{label} by the tape"
          measure
          {large}
          takes="length"
          faults="sending-faults"
          note={false}
          bind:value={sending.typed[side]}
          placeholder={inches ? ['24', '12 1/4', '8'][n] : ['60', '31', '20'][n]}
          problem={problem(`closed.sides[${n}]`) || (n === 0 ? problem('closed.sides') : '')}
          oninput={() => sending.touch()}
        />
      {/each}
    {/if}
  </div>
{/if}
