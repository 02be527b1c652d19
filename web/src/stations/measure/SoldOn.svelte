<script lang="ts">
  // Where it was sold, the label the sale gave, what the job wishes of its services, and customs for abroad.
  import Choose from '../../lib/ui/Choose.svelte';
  import type { JobDesk } from '../../job/job.svelte';
  import type { CustomsReason } from '../../job/typed';
  import { shop } from '../../lib/shop.svelte';
  import Faults from '../../lib/ui/Faults.svelte';
  import Field from '../../lib/ui/Field.svelte';
  import Tick from '../../lib/ui/Tick.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const REASONS: CustomsReason[] = ['sale', 'gift', 'return', 'repair', 'sample'];
  const touch = () => desk.touch();
  const channels = $derived(shop.view?.shop.channels ?? []);
  const channel = $derived(channels.find((one) => one.name === desk.typed.channel));
  interface Typed {
    id: string;
    label: string;
    get: () => string;
    set: (typed: string) => void;
    placeholder?: string;
    path?: string;
    measure?: boolean;
  }
  const t = $derived(desk.typed);
  const fields = $derived<Typed[]>([
    {
      id: 'sale-price',
      label: `Sold for, ${shop.view?.shop.currency ?? ''}`,
      get: () => t.sale.price,
      set: (v) => (t.sale.price = v),
      path: 'sale.price',
      measure: true,
    },
    {
      id: 'sale-postage',
      label: 'Postage the buyer paid',
      get: () => t.sale.postage,
      set: (v) => (t.sale.postage = v),
      path: 'sale.postage',
      measure: true,
    },
    {
      id: 'label-carrier',
      label: 'Label from the sale',
      get: () => t.label.carrier,
      set: (v) => (t.label.carrier = v),
      placeholder: channel?.label?.carrier ?? 'none',
    },
    {
      id: 'label-most',
      label: 'Label up to',
      get: () => t.label.mostWeight,
      set: (v) => (t.label.mostWeight = v),
      placeholder: String(channel?.label?.most_weight ?? '4 lb'),
      path: 'label.most_weight',
      measure: true,
    },
    {
      id: 'wish-days',
      label: 'Delivered within, days',
      get: () => t.wishes.days,
      set: (v) => (t.wishes.days = v),
      placeholder: 'any',
      path: 'wishes.days_at_most',
    },
    {
      id: 'wish-sides',
      label: `Length + width + height at most, ${shop.units}`,
      get: () => t.wishes.sides,
      set: (v) => (t.wishes.sides = v),
      placeholder: 'L + W + H',
      path: 'wishes.sides_sum_at_most',
      measure: true,
    },
    {
      id: 'wish-weight',
      label: 'Weight per parcel, at most',
      get: () => t.wishes.weight,
      set: (v) => (t.wishes.weight = v),
      placeholder: 'any weight',
      path: 'wishes.parcel_weight_at_most',
      measure: true,
    },
    {
      id: 'pack-minutes',
      label: 'Minutes to pack and label',
      get: () => t.packMinutes,
      set: (v) => (t.packMinutes = v),
      placeholder: String(shop.view?.shop.pack_minutes ?? ''),
      path: 'pack_minutes',
    },
    {
      id: 'from-country',
      label: 'From country',
      get: () => t.fromCountry,
      set: (v) => (t.fromCountry = v),
      placeholder: shop.view?.shop.country || 'two letters',
      path: 'ship.from_country',
    },
    {
      id: 'to-country',
      label: 'To country',
      get: () => t.toCountry,
      set: (v) => (t.toCountry = v),
      placeholder: 'the same',
      path: 'ship.to_country',
    },
  ]);
  const customs = $derived<Typed[]>([
    {
      id: 'customs-contents',
      label: 'Contents, for customs',
      get: () => t.customs.contents,
      set: (v) => (t.customs.contents = v),
    },
    { id: 'customs-made', label: 'Made in', get: () => t.customs.madeIn, set: (v) => (t.customs.madeIn = v) },
    {
      id: 'customs-code',
      label: 'Tariff code',
      get: () => t.customs.tariffCode,
      set: (v) => (t.customs.tariffCode = v),
    },
  ]);
  const abroad = $derived(desk.typed.toCountry.trim() !== '');
  const said = $derived(
    [
      desk.typed.channel,
      desk.typed.label.carrier && `label of ${desk.typed.label.carrier}`,
      desk.typed.wishes.days && `within ${desk.typed.wishes.days} days`,
      desk.typed.wishes.sides && `at most ${desk.typed.wishes.sides} in total`,
      desk.typed.wishes.weight && `each parcel at most ${desk.typed.wishes.weight}`,
      desk.typed.plainOutside && 'plain outside',
      desk.typed.wetWeather && 'wet weather',
      desk.typed.repacked && 're-packed by others',
      desk.typed.toCountry && `to ${desk.typed.toCountry.toUpperCase()}`,
    ].filter(Boolean),
  );
</script>

<details class="mt-2.5">
  <summary class="text-soft text-note cursor-pointer"
    >Sale, label, wishes, abroad, outside{#if said.length}: <b>{said.join(', ')}</b>{/if}</summary
  >
  <div class="max-phone:grid-cols-2 mx-0 my-2 grid grid-cols-4 gap-2.5">
    <Choose
      id="channel"
      label="Sold on"
      bind:value={desk.typed.channel}
      change={touch}
      options={[['', 'not set'], ...channels.map((one) => one.name)]}
    />
    {#each fields as one (one.id)}
      <Field
        id={one.id}
        label={one.label}
        measure={one.measure ?? false}
        note={false}
        faults="sold-faults"
        bind:value={one.get, one.set}
        oninput={touch}
        placeholder={one.placeholder}
        problem={one.path ? desk.work.problem(one.path) : ''}
      />
    {/each}
  </div>
  {#if abroad}
    <div class="max-phone:grid-cols-2 mx-0 my-2 grid grid-cols-4 gap-2.5">
      <Choose
        id="customs-reason"
        label="Reason"
        bind:value={desk.typed.customs.reason}
        change={touch}
        options={REASONS}
      />
      {#each customs as one (one.id)}
        <Field id={one.id} label={one.label} note={false} bind:value={one.get, one.set} oninput={touch} />
      {/each}
    </div>
  {/if}
  <div
    class="max-phone:grid-cols-1 mx-0 my-2 grid grid-cols-[minmax(0,1fr)_minmax(0,3fr)] items-start gap-2.5"
  >
    <div class="mt-4.5 grid gap-2">
      <Tick bind:checked={desk.typed.plainOutside} change={touch}>Plain outside</Tick>
      <Tick bind:checked={desk.typed.wetWeather} change={touch}>Wet weather: tape every edge</Tick>
      <Tick bind:checked={desk.typed.repacked} change={touch}>Re-packed by others: tape the top lightly</Tick>
    </div>
    <div>
      <label class="text-soft text-small mb-0.5 block" for="checklist"
        >Checks before it is closed, one a line</label
      >
      <textarea
        id="checklist"
        class="field h-auto w-full py-1.5"
        rows="2"
        maxlength="4000"
        bind:value={desk.typed.checklist}
        oninput={touch}
        placeholder="photograph of the reeds taken"></textarea>
    </div>
  </div>
  {#if channel?.note}<p class="note text-soft text-note">{channel.name}: {channel.note}</p>{/if}
  <Faults
    id="sold-faults"
    faults={[
      { field: 'channel', label: 'Sold on', sentence: desk.work.problem('channel') },
      ...fields
        .filter((one) => one.path)
        .map((one) => ({ field: one.id, label: one.label, sentence: desk.work.problem(one.path ?? '') })),
    ]}
  />
</details>
