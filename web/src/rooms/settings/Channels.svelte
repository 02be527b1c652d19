<script lang="ts">
  // Cover, signature and country; and where the shop sells, with what each of these channels brings.
  import Cell from './Cell.svelte';
  import Setting from './Setting.svelte';
  import { text, type ListProps } from './words';
  import Remove from '../../lib/ui/Remove.svelte';

  let { d = $bindable(), wrong, touched }: ListProps = $props();

  type Channel = NonNullable<typeof d.channels>[number];

  function add(): void {
    d.channels = [
      ...(d.channels ?? []),
      { name: '', programmes: [], inserts: [], note: '', return_address: '', fees: '' },
    ];
    touched();
  }
  function drop(n: number): void {
    d.channels = (d.channels ?? []).filter((_, k) => k !== n);
    touched();
  }
  const list = (said: string) =>
    said
      .split(',')
      .map((one) => one.trim())
      .filter(Boolean);
  function carrier(channel: Channel, typed: string): void {
    channel.label = typed.trim() ? { most_weight: '4 lb', ...channel.label, carrier: typed } : null;
  }
</script>

<div class="part">
  <h2>Cover, signature and channels</h2>
  <div class="grid grid-cols-[repeat(auto-fill,minmax(210px,1fr))] gap-x-4.5 gap-y-2.5">
    <Setting
      name="cover_from"
      label="Cover the declared value from, {d.currency}"
      {wrong}
      {touched}
      bind:value={() => d.cover_from ?? '', (typed) => (d.cover_from = typed)}
    />
    <Setting
      name="sign_from"
      label="Signature on delivery from, {d.currency}"
      {wrong}
      {touched}
      bind:value={() => d.sign_from ?? '', (typed) => (d.sign_from = typed)}
    />
    <Setting
      name="country"
      label="Country, two letters"
      {wrong}
      {touched}
      bind:value={() => d.country ?? '', (typed) => (d.country = typed.toUpperCase())}
    />
  </div>
  <p class="text-soft text-note mx-0 mt-2 mb-1.5 max-w-[820px]">
    A channel is where a thing was sold. Prices it names are open to its own sales only; a label that its
    sales bring costs nothing more; its inserts go into each of its parcels.
  </p>
  {#each d.channels ?? [] as channel, n (channel)}
    <fieldset class="border-t-hair border-t px-0 pt-1.5 pb-2">
      <legend class="sr-only">{channel.name || `Channel ${n + 1}`}</legend>
      <div
        class="row max-phone:grid-cols-2 max-phone:mb-4 mb-1.5 grid grid-cols-[repeat(5,minmax(0,1fr))_28px] items-end gap-2"
      >
        <div>
          <span class="text-soft text-small" aria-hidden="true">Name</span><Cell
            id="channel-{n}-name"
            label="Name of channel {n + 1}"
            measure={false}
            bind:value={() => channel.name, (v) => (channel.name = v)}
            oninput={touched}
            problem={wrong(`channels[${n}].name`)}
          />
        </div>
        <div>
          <span class="text-soft text-small" aria-hidden="true">Prices of its own</span><Cell
            id="channel-{n}-programmes"
            label="Prices of channel {n + 1}"
            measure={false}
            bind:value={() => (channel.programmes ?? []).join(', '), (v) => (channel.programmes = list(v))}
            oninput={touched}
            problem={wrong(`channels[${n}].programmes`)}
          />
        </div>
        <div>
          <span class="text-soft text-small" aria-hidden="true">Label of</span><Cell
            id="channel-{n}-label"
            label="Carrier of the label of channel {n + 1}"
            measure={false}
            bind:value={() => channel.label?.carrier ?? '', (v) => carrier(channel, v)}
            oninput={touched}
            problem={wrong(`channels[${n}].label.carrier`)}
          />
        </div>
        <div>
          <span class="text-soft text-small" aria-hidden="true">Label up to</span><Cell
            id="channel-{n}-most"
            label="Most weight of the label of channel {n + 1}"
            bind:value={
              () => text(channel.label?.most_weight, 'g'),
              (v) => {
                if (channel.label) channel.label.most_weight = v;
              }
            }
            oninput={touched}
            problem={wrong(`channels[${n}].label.most_weight`)}
          />
        </div>
        <div>
          <span class="text-soft text-small" aria-hidden="true">Fees</span><Cell
            id="channel-{n}-fees"
            label="Fees of channel {n + 1}"
            measure={false}
            bind:value={() => channel.fees ?? '', (v) => (channel.fees = v)}
            oninput={touched}
            problem={wrong(`channels[${n}].fees`)}
          />
        </div>
        <Remove of={channel.name || 'this channel'} go={() => drop(n)} />
      </div>
      <div class="row max-phone:grid-cols-2 max-phone:mb-4 mb-1.5 grid grid-cols-2 items-end gap-2">
        <div>
          <span class="text-soft text-small" aria-hidden="true">How its parcels are packed</span><Cell
            id="channel-{n}-note"
            label="Packing of channel {n + 1}"
            measure={false}
            bind:value={() => channel.note ?? '', (v) => (channel.note = v)}
            oninput={touched}
            problem={wrong(`channels[${n}].note`)}
          />
        </div>
        <div>
          <span class="text-soft text-small" aria-hidden="true">Return address</span><Cell
            id="channel-{n}-address"
            label="Return address of channel {n + 1}"
            measure={false}
            bind:value={() => channel.return_address ?? '', (v) => (channel.return_address = v)}
            oninput={touched}
            problem={wrong(`channels[${n}].return_address`)}
          />
        </div>
      </div>
      {#each channel.inserts ?? [] as insert, k (insert)}
        <div
          class="row max-phone:grid-cols-2 max-phone:mb-4 mb-1.5 grid grid-cols-[minmax(0,2fr)_minmax(0,1fr)_minmax(0,1fr)_28px] items-end gap-2"
        >
          <div>
            <span class="text-soft text-small" aria-hidden="true">Insert</span><Cell
              id="channel-{n}-insert-{k}"
              label="Insert {k + 1} of channel {n + 1}"
              measure={false}
              bind:value={() => insert.name ?? '', (v) => (insert.name = v)}
              oninput={touched}
              problem={wrong(`channels[${n}].inserts[${k}].name`)}
            />
          </div>
          <div>
            <span class="text-soft text-small" aria-hidden="true">Size</span><Cell
              id="channel-{n}-insert-{k}-size"
              label="Size of insert {k + 1} of channel {n + 1}"
              bind:value={() => text(insert.size), (v) => (insert.size = v)}
              oninput={touched}
              problem={wrong(`channels[${n}].inserts[${k}].size`)}
            />
          </div>
          <div>
            <span class="text-soft text-small" aria-hidden="true">Weight</span><Cell
              id="channel-{n}-insert-{k}-weight"
              label="Weight of insert {k + 1} of channel {n + 1}"
              bind:value={() => text(insert.weight, 'g'), (v) => (insert.weight = v)}
              oninput={touched}
              problem={wrong(`channels[${n}].inserts[${k}].weight`)}
            />
          </div>
          <Remove
            of={insert.name || 'this insert'}
            go={() => {
              channel.inserts = (channel.inserts ?? []).filter((_, m) => m !== k);
              touched();
            }}
          />
        </div>
      {/each}
      <button
        type="button"
        class="link"
        onclick={() => {
          channel.inserts = [
            ...(channel.inserts ?? []),
            { name: '', size: '6 x 4 x 1/32 in', weight: '1/4 oz' },
          ];
          touched();
        }}>Add an insert</button
      >
    </fieldset>
  {/each}
  <button type="button" class="btn" onclick={add}>Add a channel</button>
</div>
