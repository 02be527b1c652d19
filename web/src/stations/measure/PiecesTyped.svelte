<script lang="ts">
  // Bars by their ends, or shapes fixed together by their places: typed as lines, one a bar or a shape.
  import type { JobDesk } from '../../job/job.svelte';
  import { asked } from '../../job/shapes';
  import type { TypedPart } from '../../job/typed';
  import { shop } from '../../lib/shop.svelte';

  interface Props {
    desk: JobDesk;
    part: TypedPart;
    problem: string;
  }
  let { desk, part, problem }: Props = $props();

  type Value = string | number;
  type Piece = { shape: Record<string, Value>; at?: Value[]; turn?: unknown };
  type Known = { members?: Value[][][]; of?: Piece[] };

  const HOW: Record<string, { label: string; example: string }> = {
    bars: { label: 'A bar a line, from its one end to its other', example: '0, 0, 0 to 16, 0, 0' },
    compound: { label: 'A shape a line, and where its corner is', example: 'box 19 x 6 x 1 1/4 at 0, 0, 0' },
  };

  let typed = $state(said());
  let left = $state(0);
  let own = ''; // what this field wrote last, so that a change from elsewhere is shown

  const words = (value: Value) => (typeof value === 'number' ? `${value} mm` : value);
  const spot = (values: Value[]) => values.map(words).join(', ');

  function said(): string {
    const shape = part.shape as Known;
    if (part.kind === 'bars') {
      return (shape.members ?? []).map((ends) => ends.map(spot).join(' to ')).join('\n');
    }
    return (shape.of ?? [])
      .map(({ shape: of, at }) => {
        const measures = asked(String(of.kind)).map(({ name }) => words(of[name] ?? ''));
        return `${of.kind} ${measures.join(' x ')} at ${spot(at ?? [0, 0, 0])}`;
      })
      .join('\n');
  }
  $effect(() => {
    const now = said();
    if (now !== own) typed = now;
    own = now;
  });

  const numbers = (text: string) => {
    const values = text.split(',').map((one) => one.trim());
    return values.length === 3 && values.every((one) => one) ? values : null;
  };

  function bar(line: string): Value[][] | null {
    const ends = line.split(/\s+to\s+/).map(numbers);
    return ends.length === 2 && ends[0] && ends[1] ? [ends[0], ends[1]] : null;
  }

  function piece(line: string, n: number): Piece | null {
    const found = /^\s*([a-z]+)\s+(.+?)\s+at\s+(.+)$/i.exec(line);
    const at = numbers(found?.[3] ?? '');
    const kind = (found?.[1] ?? '').toLowerCase();
    const names = asked(kind).map(({ name }) => name);
    const measures = (found?.[2] ?? '').split(/\s+x\s+/).map((one) => one.trim());
    if (!at || !names.length || names.length !== measures.length) return null;
    const before = (part.shape as Known).of?.[n];
    const shape = { kind, ...Object.fromEntries(names.map((name, k) => [name, measures[k] ?? ''])) };
    return { shape, at, ...(before?.turn ? { turn: before.turn } : {}) };
  }

  /** A line begun and not finished waits, and is counted. */
  function type(): void {
    const lines = typed.split('\n').filter((line) => line.trim());
    const read = part.kind === 'bars' ? lines.map(bar) : lines.map(piece);
    const whole = read.filter((one) => one !== null);
    left = lines.length - whole.length;
    const name = part.kind === 'bars' ? 'members' : 'of';
    part.shape = { kind: part.kind, [name]: whole } as unknown as TypedPart['shape'];
    own = said();
    desk.parts.measured(part);
  }
</script>

<div class="pieces mt-1.5 grid gap-1">
  <label class="text-soft text-small" for="pieces">{HOW[part.kind]?.label}, {shop.units}</label>
  <textarea
    class="border-edge bg-sheet text-small w-full border px-2 py-1.5 font-mono tracking-[-0.04em]"
    id="pieces"
    rows="5"
    spellcheck="false"
    bind:value={typed}
    oninput={type}
    placeholder={HOW[part.kind]?.example}></textarea>
  {#if problem}<p class="wrong text-stop text-small">{problem}</p>{/if}
  {#if left}<p class="wait text-soft text-small">
      {left === 1 ? 'One line is' : `${left} lines are`} not whole yet: {HOW[part.kind]?.example}
    </p>{/if}
</div>
