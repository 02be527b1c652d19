<script lang="ts">
  // Measure: the thing, what must go in with it, where it goes. Tab order is the order of measuring.
  import { tick } from 'svelte';
  import type { JobDesk } from '../../job/job.svelte';
  import InBox from '../../lib/draw/InBox.svelte';
  import { shop } from '../../lib/shop.svelte';
  import { toast } from '../../lib/toast.svelte';
  import Faults from '../../lib/ui/Faults.svelte';
  import Field from '../../lib/ui/Field.svelte';
  import Measured from '../../lib/ui/Measured.svelte';
  import Why from '../../lib/ui/Why.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  const HINT = `Wrapped, at its widest, as it will stand. 10 1/2, 5' 3", 26.7 cm, 4 lb 6 oz are all read.`;
  const touch = () => desk.touch();
  /** What every measure of the thing has in common. */
  const measure = (path: string) => ({
    large: true,
    measure: true,
    oninput: touch,
    problem: desk.problem(path),
    read: desk.read(path),
    faults: 'sides-faults',
  });
  const inside = $derived(desk.work?.inside);
  const shape = 'parts[0].shape';
  const sizeUnit = $derived(shop.units);
  const massUnit = $derived(shop.units === 'in' ? 'lb oz' : 'kg');
  const usualGap = $derived(shop.view ? String(shop.view.shop.gap).replace(` ${shop.units}`, '') : '');

  async function addExtra(): Promise<void> {
    desk.typed.extras.push({ name: '', size: '', weight: '' });
    await tick();
    document.getElementById(`extra-${desk.typed.extras.length - 1}-name`)?.focus();
  }

  function removeExtra(n: number): void {
    const [gone] = desk.typed.extras.splice(n, 1);
    if (!gone) return;
    touch();
    toast.show(`${gone.name || 'The extra'} is off the list.`, () => {
      desk.typed.extras.splice(n, 0, gone);
      touch();
    });
  }

  /** Enter goes on to the next field; on the last extra's last field it opens the next one. */
  function entered(event: KeyboardEvent): void {
    const input = event.target as HTMLElement;
    if (event.key !== 'Enter' || input.tagName !== 'INPUT') return;
    event.preventDefault();
    const last = desk.typed.extras.length - 1;
    if (input.id === `extra-${last}-weight` || (input.id === 'gap' && last < 0)) {
      void addExtra();
      return;
    }
    const fields = [
      ...(event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('input, button.add'),
    ];
    fields[fields.indexOf(input) + 1]?.focus();
  }
</script>

<!-- Enter in any of its fields goes on to the next. -->
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<form class="measure" onkeydown={entered} onsubmit={(event) => event.preventDefault()} aria-label="Measures">
  <section class="thing">
    <Field
      id="name"
      label="What it is"
      note={false}
      bind:value={desk.typed.name}
      oninput={touch}
      placeholder="table loom, folded"
    />
    <div class="sides">
      <Field
        id="length"
        label="Length, {sizeUnit}"
        {...measure(`${shape}.length`)}
        bind:value={desk.typed.length}
      />
      <Field
        id="width"
        label="Width, {sizeUnit}"
        {...measure(`${shape}.width`)}
        bind:value={desk.typed.width}
      />
      <Field
        id="height"
        label="Height, {sizeUnit}"
        {...measure(`${shape}.height`)}
        bind:value={desk.typed.height}
      />
      <Field
        id="weight"
        label="Weight, {massUnit}"
        {...measure('parts[0].weight')}
        bind:value={desk.typed.weight}
      />
      <Field
        id="gap"
        label="Gap, {sizeUnit}"
        {...measure('parts[0].gap')}
        bind:value={desk.typed.gap}
        placeholder={usualGap}
      />
    </div>
    <Faults
      id="sides-faults"
      hint={HINT}
      faults={[
        { field: 'length', label: 'Length', sentence: desk.problem(`${shape}.length`) },
        { field: 'width', label: 'Width', sentence: desk.problem(`${shape}.width`) },
        { field: 'height', label: 'Height', sentence: desk.problem(`${shape}.height`) },
        { field: 'weight', label: 'Weight', sentence: desk.problem('parts[0].weight') },
        { field: 'gap', label: 'Gap', sentence: desk.problem('parts[0].gap') },
      ]}
    />
  </section>

  <section class="extras">
    <h2>What must go in with it</h2>
    {#if desk.typed.extras.length}
      <div class="row heads" aria-hidden="true">
        <span>Extra</span><span>Size, {sizeUnit}</span><span>Weight, {massUnit}</span>
      </div>
    {/if}
    {#each desk.typed.extras as extra, n (extra)}
      {@const size = desk.problem(`extras[${n}].size`)}
      {@const weight = desk.problem(`extras[${n}].weight`)}
      {@const faults = size || weight ? `extra-${n}-faults` : ''}
      <div class="row">
        <Field
          id="extra-{n}-name"
          label="Extra {n + 1}"
          hideLabel
          note={false}
          bind:value={extra.name}
          oninput={touch}
          placeholder="oil bottle"
        />
        <Field
          id="extra-{n}-size"
          label="Size of extra {n + 1}"
          hideLabel
          measure
          note={false}
          bind:value={extra.size}
          oninput={touch}
          placeholder="4 x 3 x 2"
          problem={size}
          {faults}
        />
        <Field
          id="extra-{n}-weight"
          label="Weight of extra {n + 1}"
          hideLabel
          measure
          note={false}
          bind:value={extra.weight}
          oninput={touch}
          placeholder="6 oz"
          problem={weight}
          {faults}
        />
        <button
          type="button"
          class="off"
          onclick={() => removeExtra(n)}
          aria-label="Take {extra.name || `extra ${n + 1}`} off the list">×</button
        >
        {#if faults}
          <div class="wide">
            <Faults
              id={faults}
              faults={[
                {
                  field: `extra-${n}-size`,
                  label: `Size of ${extra.name || `extra ${n + 1}`}`,
                  sentence: size,
                },
                {
                  field: `extra-${n}-weight`,
                  label: `Weight of ${extra.name || `extra ${n + 1}`}`,
                  sentence: weight,
                },
              ]}
            />
          </div>
        {/if}
      </div>
    {/each}
    <button type="button" class="btn add" onclick={addExtra}>Add an extra</button>
  </section>

  <section class="way">
    <h2>Where it goes</h2>
    <div class="ship">
      <Field
        id="to"
        label="To postcode"
        note={false}
        faults="ship-faults"
        bind:value={desk.typed.to}
        oninput={touch}
        placeholder="73120"
        problem={desk.problem('ship.to')}
      />
      <Field
        id="from"
        label="From"
        note={false}
        faults="ship-faults"
        bind:value={desk.typed.from}
        oninput={touch}
        placeholder={shop.view?.shop.postcode ?? ''}
        problem={desk.problem('ship.from')}
      />
      <Field
        id="value"
        label="Value, {shop.view?.shop.currency ?? ''}"
        measure
        note={false}
        faults="ship-faults"
        bind:value={desk.typed.value}
        oninput={touch}
        placeholder="not declared"
        problem={desk.problem('value')}
      />
      <Field
        id="day"
        label="Leaves on"
        type="date"
        note={false}
        bind:value={desk.typed.day}
        oninput={touch}
      />
    </div>
    <label class="home">
      <input type="checkbox" id="residential" bind:checked={desk.typed.residential} onchange={touch} />
      The door is a home's, not a business's
    </label>
    <Faults
      id="ship-faults"
      faults={[
        { field: 'to', label: 'To postcode', sentence: desk.problem('ship.to') },
        { field: 'from', label: 'From', sentence: desk.problem('ship.from') },
        { field: 'value', label: 'Value', sentence: desk.problem('value') },
      ]}
    />
  </section>

  <section class="inside sheet" aria-label="Inside size">
    {#if inside && desk.work?.layout}
      <p class="soft">Inside, so that everything fits</p>
      <p class="stated figure">
        <Why
          of="this inside size"
          why={inside.figure.why}
          note={inside.figure.exact ? '' : 'Shown rounded up.'}
        >
          <Measured text={inside.figure.text} />
        </Why>
      </p>
      <InBox layout={desk.work.layout} sides={inside.sides} />
      <p class="key"><i class="goods"></i>{desk.typed.name || 'the goods'}<i class="with"></i>extras</p>
    {:else}
      <p class="soft">Inside size</p>
      <p class="teach">
        {desk.work?.problems.length
          ? 'One of the measures cannot be read; it is marked.'
          : 'Length, width, height and weight first. The inside size is stated here before anybody cuts.'}
      </p>
    {/if}
  </section>
</form>

<style>
  .measure {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 336px;
    gap: 18px 22px;
    align-items: start;
  }
  .thing,
  .extras,
  .way {
    grid-column: 1;
  }
  .thing {
    display: grid;
    gap: 10px;
  }
  .sides {
    display: grid;
    grid-template-columns: repeat(3, minmax(0, 1fr)) minmax(0, 1.3fr) minmax(0, 0.95fr);
    gap: 10px;
  }
  .extras {
    display: grid;
    gap: 6px;
    justify-items: start;
  }
  .row {
    display: grid;
    grid-template-columns: minmax(0, 1.3fr) minmax(0, 1.2fr) 110px 34px;
    gap: 8px;
    width: 100%;
  }
  .heads {
    font-size: 13px;
    color: var(--soft);
  }
  .off {
    font-size: 21px;
    color: var(--soft);
  }
  .off:hover {
    color: var(--stop);
  }
  .wide {
    grid-column: 1 / -1;
  }
  .ship {
    display: grid;
    grid-template-columns: repeat(4, minmax(0, 1fr));
    gap: 10px;
    margin: 4px 0 12px;
  }
  .home {
    display: inline-flex;
    gap: 8px;
    align-items: center;
    cursor: pointer;
  }
  .home input {
    width: 18px;
    height: 18px;
    accent-color: var(--twine);
  }
  .inside {
    grid-column: 2;
    grid-row: 1 / span 4;
    padding: 14px 16px;
    min-height: 440px;
  }
  .soft,
  .teach {
    color: var(--soft);
  }
  .stated {
    font-size: 26px;
    letter-spacing: -0.06em;
    min-height: 40px;
  }
  .key {
    display: flex;
    align-items: center;
    gap: 6px;
    font-size: 13.5px;
    color: var(--soft);
    margin-top: 8px;
  }
  .key i {
    width: 12px;
    height: 12px;
    border: 1px solid var(--ink);
    background: color-mix(in srgb, var(--ink) 32%, var(--sheet));
  }
  .key .with {
    margin-left: 12px;
    border-color: var(--twine);
    background: color-mix(in srgb, var(--twine) 42%, var(--sheet));
  }
  @media (max-width: 1100px) {
    .measure {
      grid-template-columns: minmax(0, 1fr);
    }
    .inside {
      grid-column: 1;
      grid-row: 2;
      min-height: 0;
      display: grid;
      grid-template-columns: minmax(0, 1fr) 230px;
      align-items: start;
    }
    .inside :global(svg) {
      grid-column: 2;
      grid-row: 1 / span 4;
      max-height: 180px;
    }
  }
  @media (max-width: 620px) {
    .sides,
    .ship {
      grid-template-columns: repeat(2, minmax(0, 1fr));
    }
    .row {
      grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) 34px;
    }
  }
</style>
