<script lang="ts">
  // All that a kind of goods says, to read and to change. Its parts come from a job: begin one, measure, keep it as a kind.
  import { written } from '../../lib/written';
  import type { KindFile } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import { shapeTitle } from '../../stations/measure/ask';
  import Tick from '../../lib/ui/Tick.svelte';
  import Field from '../../lib/ui/Field.svelte';

  interface Props {
    kind: KindFile;
    touched: () => void;
  }
  let { kind = $bindable(), touched }: Props = $props();

  type Lines = 'weak_points' | 'protection' | 'arrangement' | 'checks' | 'cautions';
  const LISTS: [Lines, string][] = [
    ['weak_points', 'Where it breaks'],
    ['protection', 'How it is protected'],
    ['arrangement', 'How it lies in the box'],
    ['checks', 'Checked before closing'],
    ['cautions', 'Cautions'],
  ];

  const lines = (name: Lines) => (kind[name] ?? []).join('\n');
  function take(name: Lines, text: string): void {
    kind[name] = text.split('\n').filter((line) => line.trim());
    touched();
  }
  type Question = NonNullable<KindFile['questions']>[number];
  function ask(code: Question, yes: boolean): void {
    const others = (kind.questions ?? []).filter((one) => one !== code);
    kind.questions = yes ? [...others, code] : others;
    touched();
  }
  function fill(change: Partial<NonNullable<KindFile['fill']>>): void {
    kind.fill = { loose: true, full: 'firm', why: '', ...kind.fill, ...change };
    touched();
  }
  function addStep(): void {
    const steps = kind.steps ?? [];
    let n = steps.length + 1;
    while (steps.some((step) => step.id === `step-${n}`)) n += 1;
    kind.steps = [
      ...steps,
      {
        id: `step-${n}`,
        do: '',
        tool: '',
        turn: '',
        of: '',
        caution: '',
        keep: '',
        back: '',
        chosen: false,
        done: false,
      },
    ];
    touched();
  }
  function dropStep(n: number): void {
    kind.steps = (kind.steps ?? []).filter((_, k) => k !== n);
    touched();
  }
  const parts = $derived([...kind.parts, ...(kind.steps ?? []).flatMap((step) => step.frees ?? [])]);
  function sizes(shape: unknown): string {
    const { kind: of, ...measures } = shape as Record<string, unknown>;
    const said = Object.values(measures).filter((one) => typeof one === 'string' || typeof one === 'number');
    return `${shapeTitle(written(of ?? 'box'))} ${said.join(' × ')}`;
  }
</script>

<div class="grid [justify-items:stretch] gap-3">
  <div class="grid grid-cols-2 items-start gap-x-4 gap-y-3">
    <Field id="kind-called" label="Name" note={false} most={80} bind:value={kind.title} oninput={touched} />
    <Field
      id="kind-words"
      label="Search words"
      note={false}
      most={200}
      bind:value={kind.words}
      oninput={touched}
    />
  </div>
  <Field
    id="kind-about"
    label="Description"
    note={false}
    most={300}
    bind:value={kind.about}
    oninput={touched}
  />
  <div class="grid grid-cols-2 items-start gap-x-4 gap-y-3">
    {#each LISTS as [name, title] (name)}
      <label class="text-soft text-small"
        >{title}, one a line<textarea
          class="border-edge text-ink bg-sheet text-body block w-full border px-2.5 py-1.5 font-sans"
          rows={Math.max(3, (kind[name] ?? []).length + 1)}
          value={lines(name)}
          oninput={(event) => take(name, event.currentTarget.value)}></textarea></label
      >
    {/each}
    <fieldset class="flex flex-wrap gap-x-4 gap-y-1.5">
      <legend class="text-soft text-small">Safety questions</legend>
      {#each shop.view?.questions ?? [] as { value: code, says } (code)}
        <Tick checked={(kind.questions ?? []).includes(code)} change={(on) => ask(code, on)}>{says}</Tick>
      {/each}
    </fieldset>
  </div>
  <div class="grid grid-cols-2 items-start gap-x-4 gap-y-3">
    <Field
      id="kind-why"
      label="Reason for the fill"
      note={false}
      most={300}
      bind:value={() => kind.fill?.why ?? '', (why) => fill({ why })}
      oninput={touched}
    />
    <fieldset class="flex flex-wrap gap-x-4 gap-y-1.5">
      <legend class="text-soft text-small">Fill</legend>
      <Tick
        checked={kind.fill?.loose ?? true}
        change={(on) => {
          fill({ loose: on });
        }}>loose fill may be used</Tick
      >
      <Tick
        checked={kind.fill?.full !== 'soft'}
        change={(on) => {
          fill({ full: on ? 'firm' : 'soft' });
        }}>packed firm</Tick
      >
    </fieldset>
  </div>

  <h2 class="text-ink text-body mt-2">Taking apart</h2>
  {#each kind.steps ?? [] as step, n (step.id)}
    <fieldset
      class="step border-b-hair grid grid-cols-[minmax(0,1.6fr)_minmax(0,1fr)] flex-wrap gap-x-3.5 gap-y-1.5 border-b px-0 pt-2 pb-3"
    >
      <legend class="text-soft text-small">Step {n + 1}</legend>
      <div class="wide">
        <Field id="step-{n}-do" label="Step" note={false} most={300} bind:value={step.do} oninput={touched} />
      </div>
      <Field
        id="step-{n}-tool"
        label="Tool"
        note={false}
        most={120}
        bind:value={step.tool}
        oninput={touched}
      />
      <div class="wide">
        <Field
          id="step-{n}-turn"
          label="Which way it turns"
          note={false}
          most={200}
          bind:value={step.turn}
          oninput={touched}
        />
      </div>
      <Field
        id="step-{n}-keep"
        label="Bag"
        note={false}
        most={200}
        bind:value={step.keep}
        oninput={touched}
      />
      <div class="wide">
        <Field
          id="step-{n}-caution"
          label="Caution"
          note={false}
          most={400}
          bind:value={step.caution}
          oninput={touched}
        />
      </div>
      <Field
        id="step-{n}-back"
        label="Reassembly"
        note={false}
        most={300}
        bind:value={step.back}
        oninput={touched}
      />
      <Tick bind:checked={step.chosen} change={touched} place="wide">usually taken</Tick>
      <button type="button" class="link text-note justify-self-start" onclick={() => dropStep(n)}
        >Remove step {n + 1}</button
      >
    </fieldset>
  {/each}
  <button type="button" class="btn justify-self-start" onclick={addStep}>Add a step</button>

  <h2 class="text-ink text-body mt-2">Parts, with their starting measures</h2>
  <ul>
    {#each parts as part (part)}
      <li class="border-b-hair flex gap-3 border-b px-0 py-0.75">
        <b>{part.name}</b>{Number(part.count ?? 1) > 1 ? ` × ${part.count}` : ''}<span class="text-soft"
          >{sizes(part.shape)}, {part.weight}</span
        >
      </li>
    {/each}
  </ul>
  <p class="text-soft">
    To change them, begin a job from this kind, measure it, and keep that job as a kind of goods.
  </p>
</div>
