<script lang="ts">
  // Where it was sold, the label the sale gave, what the job wishes of its services, and customs for abroad.
  import type { JobDesk } from '../../job/job.svelte';
  import type { CustomsReason } from '../../job/typed';
  import { shop } from '../../lib/shop.svelte';
  import Faults from '../../lib/ui/Faults.svelte';
  import Field from '../../lib/ui/Field.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const REASONS: CustomsReason[] = ['sale', 'gift', 'return', 'repair', 'sample'];
  const touch = () => desk.touch();
  const channels = $derived(shop.view?.shop.channels ?? []);
  const channel = $derived(channels.find((one) => one.name === desk.typed.channel));
  const abroad = $derived(desk.typed.toCountry.trim() !== '');
  const said = $derived(
    [
      desk.typed.channel,
      desk.typed.label.carrier && `label of ${desk.typed.label.carrier}`,
      desk.typed.wishes.days && `within ${desk.typed.wishes.days} days`,
      desk.typed.wishes.sides && `at most ${desk.typed.wishes.sides} in all`,
      desk.typed.toCountry && `to ${desk.typed.toCountry.toUpperCase()}`,
    ].filter(Boolean),
  );
</script>

<details>
  <summary
    >Channel, label, wishes, abroad{#if said.length}: <b>{said.join(', ')}</b>{/if}</summary
  >
  <div class="grid">
    <label
      >Sold on
      <select class="field" id="channel" bind:value={desk.typed.channel} onchange={touch}>
        <option value="">nothing said</option>
        {#each channels as one (one.name)}<option>{one.name}</option>{/each}
      </select></label
    >
    <Field
      id="label-carrier"
      label="Label from the sale"
      note={false}
      faults="sold-faults"
      bind:value={desk.typed.label.carrier}
      oninput={touch}
      placeholder={channel?.label?.carrier ?? 'none'}
    />
    <Field
      id="label-most"
      label="Label up to"
      measure
      note={false}
      faults="sold-faults"
      bind:value={desk.typed.label.mostWeight}
      oninput={touch}
      placeholder={String(channel?.label?.most_weight ?? '4 lb')}
      problem={desk.problem('label.most_weight')}
    />
    <Field
      id="wish-days"
      label="Within, days"
      note={false}
      faults="sold-faults"
      bind:value={desk.typed.wishes.days}
      oninput={touch}
      placeholder="any"
      problem={desk.problem('wishes.days_at_most')}
    />
    <Field
      id="wish-sides"
      label="At most in all, {shop.units}"
      measure
      note={false}
      faults="sold-faults"
      bind:value={desk.typed.wishes.sides}
      oninput={touch}
      placeholder="L + W + H"
      problem={desk.problem('wishes.sides_sum_at_most')}
    />
    <Field
      id="from-country"
      label="From country"
      note={false}
      faults="sold-faults"
      bind:value={desk.typed.fromCountry}
      oninput={touch}
      placeholder={shop.view?.shop.country || 'two letters'}
      problem={desk.problem('ship.from_country')}
    />
    <Field
      id="to-country"
      label="To country"
      note={false}
      faults="sold-faults"
      bind:value={desk.typed.toCountry}
      oninput={touch}
      placeholder="the same"
      problem={desk.problem('ship.to_country')}
    />
  </div>
  {#if abroad}
    <div class="grid">
      <Field
        id="customs-contents"
        label="Contents, for customs"
        note={false}
        bind:value={desk.typed.customs.contents}
        oninput={touch}
      />
      <label
        >Reason
        <select class="field" id="customs-reason" bind:value={desk.typed.customs.reason} onchange={touch}>
          {#each REASONS as reason (reason)}<option>{reason}</option>{/each}
        </select></label
      >
      <Field
        id="customs-made"
        label="Made in"
        note={false}
        bind:value={desk.typed.customs.madeIn}
        oninput={touch}
        placeholder="two letters"
      />
      <Field
        id="customs-code"
        label="Tariff code"
        note={false}
        bind:value={desk.typed.customs.tariffCode}
        oninput={touch}
      />
    </div>
  {/if}
  {#if channel?.note}<p class="note">{channel.name}: {channel.note}</p>{/if}
  <Faults
    id="sold-faults"
    faults={[
      { field: 'channel', label: 'Sold on', sentence: desk.problem('channel') },
      { field: 'label-most', label: 'Label up to', sentence: desk.problem('label.most_weight') },
      { field: 'wish-days', label: 'Within', sentence: desk.problem('wishes.days_at_most') },
      { field: 'wish-sides', label: 'At most in all', sentence: desk.problem('wishes.sides_sum_at_most') },
      { field: 'from-country', label: 'From country', sentence: desk.problem('ship.from_country') },
      { field: 'to-country', label: 'To country', sentence: desk.problem('ship.to_country') },
    ]}
  />
</details>

<style>
  details {
    margin-top: 10px;
  }
  summary {
    cursor: pointer;
    font-size: 14px;
    color: var(--soft);
  }
  .grid {
    display: grid;
    grid-template-columns: repeat(4, minmax(0, 1fr));
    gap: 10px;
    margin: 8px 0;
  }
  label {
    font-size: 14px;
    color: var(--soft);
  }
  select {
    display: block;
    width: 100%;
    color: var(--ink);
  }
  .note {
    font-size: 14px;
    color: var(--soft);
  }
  @media (max-width: 620px) {
    .grid {
      grid-template-columns: repeat(2, minmax(0, 1fr));
    }
  }
</style>
