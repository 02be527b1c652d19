<script lang="ts">
  // House rules: when one holds, and what follows from it. What is left empty under "when" holds for every job.
  import Choose from '../../lib/ui/Choose.svelte';
  import { Asked } from '../../lib/asked.svelte';
  import { calls, type ShopFile } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import Cell from './Cell.svelte';
  import { text, type ListProps } from './words';
  import Remove from '../../lib/ui/Remove.svelte';

  let { d = $bindable(), wrong, touched }: ListProps = $props();

  type Rule = NonNullable<ShopFile['rules']>[number];
  // Without the list a rule keeps the kind it has.
  const asked = new Asked(() => () => calls.kinds());
  const kinds = $derived(asked.answer ?? []);

  function add(): void {
    d.rules = [...(d.rules ?? []), { name: '' } as Rule];
    touched();
  }
  function drop(n: number): void {
    d.rules = (d.rules ?? []).filter((_, k) => k !== n);
    touched();
  }
  const list = (said: string) =>
    said
      .split(',')
      .map((one) => one.trim())
      .filter(Boolean);
  /** A whole number, or what was typed where it is none, for the shop to say so. */
  const whole = (said: string) => (said.trim() === '' ? null : ((Number(said) || said) as number));
  const boxes = $derived([...(d.boxes ?? []), ...(d.mailers ?? [])].map((one) => one.name));
  const WORDS = [
    ['value_from', 'Value from'],
    ['country', 'Country'],
    ['first_day', 'From day, 11-15'],
    ['last_day', 'To day, 01-05'],
  ] as const;
  const TICKS = [
    ['no_loose_fill', 'no loose fill'],
    ['cover', 'covered in full'],
    ['signature', 'signature on delivery'],
  ] as const;
</script>

{#snippet cell(n: number, name: string, label: string, value: string, set: (v: string) => void)}
  <div class="cell text-soft text-small">
    <span class="text-soft text-small" aria-hidden="true">{label}</span><Cell
      id="rule-{n}-{name}"
      label="{label} of rule {n + 1}"
      measure={false}
      bind:value={() => value, set}
      oninput={touched}
      problem={wrong(`rules[${n}].${name}`)}
    />
  </div>
{/snippet}

{#snippet choice(
  n: number,
  name: string,
  label: string,
  value: string,
  options: readonly (readonly [string, string])[],
  set: (v: string) => void,
)}
  <div class="cell">
    <Choose
      id="rule-{n}-{name}"
      {label}
      {value}
      change={(v) => {
        set(v);
        touched();
      }}
      options={[['', 'any'], ...options]}
    />
  </div>
{/snippet}

<div class="part">
  <h2>House rules</h2>
  <p class="text-soft text-note mx-0 mt-2 mb-1.5 max-w-[820px]">
    What the shop always does with such a job: a box in a box over a value, no loose fill for a kind, which
    box for how many, a carrier that comes first or is not used, more room and tape in the rough weeks. A rule
    is named wherever it decides, and a job may leave it out.
  </p>
  {#each d.rules ?? [] as rule, n (rule)}
    <fieldset class="border-t-hair border-t px-0 pt-2 pb-2.5">
      <legend class="sr-only">{rule.name || `Rule ${n + 1}`}</legend>
      <div
        class="row first max-phone:grid-cols-2 max-phone:mb-4 grid grid-cols-[minmax(0,420px)_28px] items-end gap-x-2 gap-y-1.5"
      >
        {@render cell(n, 'name', 'Name', rule.name, (v) => (rule.name = v))}
        <Remove of="rule {rule.name || n + 1}" go={() => drop(n)} />
      </div>
      <p class="text-small mt-1.5 font-semibold">When</p>
      <div class="row grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] items-end gap-x-2 gap-y-1.5">
        {@render choice(
          n,
          'kind',
          'Kind of goods',
          rule.kind ?? '',
          kinds.map((one) => [one.code, one.title] as const),
          (v) => (rule.kind = v),
        )}
        {@render choice(
          n,
          'channel',
          'Channel',
          rule.channel ?? '',
          (d.channels ?? []).map((one) => [one.name, one.name] as const),
          (v) => (rule.channel = v),
        )}
        {@render cell(
          n,
          'things_from',
          'Things from',
          text(rule.things_from, '').trim(),
          (v) => (rule.things_from = whole(v)),
        )}
        {@render cell(
          n,
          'things_to',
          'Things to',
          text(rule.things_to, '').trim(),
          (v) => (rule.things_to = whole(v)),
        )}
        {@render cell(
          n,
          'to',
          'Postcodes begin with',
          (rule.to ?? []).join(', '),
          (v) => (rule.to = list(v)),
        )}
        {#each WORDS as [name, label] (name)}
          {@render cell(n, name, label, rule[name] ?? '', (v) => (rule[name] = v))}
        {/each}
      </div>
      <p class="text-small mt-1.5 font-semibold">Then</p>
      <div class="row grid grid-cols-[repeat(auto-fill,minmax(150px,1fr))] items-end gap-x-2 gap-y-1.5">
        {@render choice(
          n,
          'ways',
          'Only as',
          (rule.ways ?? []).join(', '),
          (shop.view?.ways ?? []).map((one) => [one.way, one.title] as const),
          (v) => (rule.ways = list(v) as Rule['ways']),
        )}
        {@render choice(
          n,
          'box',
          'In the box or mailer',
          rule.box ?? '',
          boxes.map((one) => [one, one] as const),
          (v) => (rule.box = v),
        )}
        {@render cell(n, 'bar', 'Not by carriers', (rule.bar ?? []).join(', '), (v) => (rule.bar = list(v)))}
        {@render cell(
          n,
          'prefer',
          'These carriers first',
          (rule.prefer ?? []).join(', '),
          (v) => (rule.prefer = list(v)),
        )}
        {@render cell(
          n,
          'prefer_up_to',
          'At most so much more',
          rule.prefer_up_to ?? '',
          (v) => (rule.prefer_up_to = v),
        )}
        {@render cell(
          n,
          'parcels_at_most',
          'Parcels at most',
          text(rule.parcels_at_most, '').trim(),
          (v) => (rule.parcels_at_most = whole(v)),
        )}
        {@render cell(n, 'more_gap', 'More gap each side', text(rule.more_gap), (v) => (rule.more_gap = v))}
        {@render cell(
          n,
          'tape_times',
          'Times the tape',
          String(rule.tape_times ?? 1),
          (v) => (rule.tape_times = whole(v) ?? 1),
        )}
      </div>
      <div class="text-note mt-2 flex flex-wrap gap-x-5.5 gap-y-1.5">
        {#each TICKS as [name, label] (name)}
          <label
            ><input
              class="accent-twine h-4.5 w-4.5 [vertical-align:-3px]"
              type="checkbox"
              checked={rule[name] ?? false}
              onchange={(event) => {
                rule[name] = event.currentTarget.checked;
                touched();
              }}
            />
            {label}</label
          >
        {/each}
      </div>
    </fieldset>
  {/each}
  <button type="button" class="btn" onclick={add}>Add a house rule</button>
</div>

<style>
  .cell :global(input) {
    color: var(--ink);
  }
</style>
