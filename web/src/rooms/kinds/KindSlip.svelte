<script lang="ts">
  // All that a kind of goods says, to read and to change. Its parts come from a job: begin one, measure, keep it as a kind.
  import { written } from '../../lib/written';
  import type { KindFile } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import { shapeTitle } from '../../stations/measure/ask';

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

<div class="slip">
  <div class="two">
    <label
      >Name<input
        class="field"
        id="kind-called"
        maxlength="80"
        bind:value={kind.title}
        oninput={touched}
      /></label
    >
    <label
      >Search words<input class="field" maxlength="200" bind:value={kind.words} oninput={touched} /></label
    >
  </div>
  <label>Description<input class="field" maxlength="300" bind:value={kind.about} oninput={touched} /></label>
  <div class="two">
    {#each LISTS as [name, title] (name)}
      <label
        >{title}, one a line<textarea
          rows={Math.max(3, (kind[name] ?? []).length + 1)}
          value={lines(name)}
          oninput={(event) => take(name, event.currentTarget.value)}></textarea></label
      >
    {/each}
    <fieldset>
      <legend>Safety questions</legend>
      {#each shop.view?.questions ?? [] as { value: code, says } (code)}
        <label class="tick" title={says}
          ><input
            type="checkbox"
            checked={(kind.questions ?? []).includes(code)}
            onchange={(event) => ask(code, event.currentTarget.checked)}
          />{code}</label
        >
      {/each}
    </fieldset>
  </div>
  <div class="two">
    <label
      >Reason for the fill<input
        class="field"
        maxlength="300"
        bind:value={() => kind.fill?.why ?? '', (why) => fill({ why })}
        oninput={touched}
      /></label
    >
    <fieldset>
      <legend>Fill</legend>
      <label class="tick"
        ><input
          type="checkbox"
          checked={kind.fill?.loose ?? true}
          onchange={(event) => {
            fill({ loose: event.currentTarget.checked });
          }}
        />loose fill may be used</label
      >
      <label class="tick"
        ><input
          type="checkbox"
          checked={kind.fill?.full !== 'soft'}
          onchange={(event) => {
            fill({ full: event.currentTarget.checked ? 'firm' : 'soft' });
          }}
        />packed firm</label
      >
    </fieldset>
  </div>

  <h2>Taking apart</h2>
  {#each kind.steps ?? [] as step, n (step.id)}
    <fieldset class="step">
      <legend>Step {n + 1}</legend>
      <label class="wide"
        >Step<input class="field" maxlength="300" bind:value={step.do} oninput={touched} /></label
      >
      <label>Tool<input class="field" maxlength="120" bind:value={step.tool} oninput={touched} /></label>
      <label class="wide"
        >Which way it turns<input
          class="field"
          maxlength="200"
          bind:value={step.turn}
          oninput={touched}
        /></label
      >
      <label>Bag<input class="field" maxlength="200" bind:value={step.keep} oninput={touched} /></label>
      <label class="wide"
        >Caution<input class="field" maxlength="400" bind:value={step.caution} oninput={touched} /></label
      >
      <label>Reassembly<input class="field" maxlength="300" bind:value={step.back} oninput={touched} /></label
      >
      <label class="tick wide"
        ><input type="checkbox" bind:checked={step.chosen} onchange={touched} />usually taken</label
      >
      <button type="button" class="link" onclick={() => dropStep(n)}>Remove step {n + 1}</button>
    </fieldset>
  {/each}
  <button type="button" class="btn" onclick={addStep}>Add a step</button>

  <h2>Parts, with their starting measures</h2>
  <ul>
    {#each parts as part, n (n)}
      <li>
        <b>{part.name}</b>{Number(part.count ?? 1) > 1 ? ` × ${part.count}` : ''}<span
          >{sizes(part.shape)}, {part.weight}</span
        >
      </li>
    {/each}
  </ul>
  <p class="soft">
    To change them, begin a job from this kind, measure it, and keep that job as a kind of goods.
  </p>
</div>

<style>
  .slip {
    display: grid;
    gap: 12px;
    justify-items: stretch;
  }
  .two {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 12px 16px;
    align-items: start;
  }
  label {
    font-size: 13.5px;
    color: var(--soft);
  }
  .field,
  textarea {
    display: block;
    color: var(--ink);
    font-size: 15px;
  }
  textarea {
    width: 100%;
    padding: 6px 10px;
    border: 1px solid var(--edge);
    background: var(--sheet);
    font-family: var(--font-sans);
  }
  fieldset {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 16px;
  }
  legend {
    font-size: 13.5px;
    color: var(--soft);
  }
  .tick {
    display: flex;
    gap: 7px;
    align-items: center;
    color: var(--ink);
    font-size: 14.5px;
  }
  .tick input {
    width: 17px;
    height: 17px;
    accent-color: var(--twine);
  }
  .step {
    display: grid;
    grid-template-columns: minmax(0, 1.6fr) minmax(0, 1fr);
    gap: 6px 14px;
    padding: 8px 0 12px;
    border-bottom: 1px solid var(--hair);
  }
  .link {
    justify-self: start;
    font-size: 14px;
  }
  .btn {
    justify-self: start;
  }
  h2 {
    margin-top: 8px;
    color: var(--ink);
    font-size: 16px;
  }
  li {
    display: flex;
    gap: 12px;
    padding: 3px 0;
    border-bottom: 1px solid var(--hair);
  }
  li span,
  .soft {
    color: var(--soft);
  }
</style>
