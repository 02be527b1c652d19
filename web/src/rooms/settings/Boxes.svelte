<script lang="ts">
  // The boxes that are there: new ones on the shelf, used ones in the stash.
  import Wide from '../../lib/ui/Wide.svelte';
  import Choose from '../../lib/ui/Choose.svelte';
  import Wear from '../../lib/ui/Wear.svelte';
  import Cell from './Cell.svelte';
  import { triple, type ListProps } from './words';
  import Remove from '../../lib/ui/Remove.svelte';
  import Tick from '../../lib/ui/Tick.svelte';

  let { d = $bindable(), wrong, touched }: ListProps = $props();

  function add(): void {
    const box = {
      name: '',
      inside: '12 x 12 x 12 in',
      board: d.default_board,
      price: '0.00',
      count: 1,
      carrier: '',
    };
    d.boxes = [...(d.boxes ?? []), { ...box, used: true }];
    touched();
  }
  /** Used boxes and carriers' cartons, and the one it is of though it is there no more. */
  const sources = (own: string) => [
    ...new Set([own, ...(d.boxes ?? []).filter((box) => box.used || box.carrier).map((box) => box.name)]),
  ];
  function dropPattern(n: number): void {
    d.patterns = (d.patterns ?? []).filter((_, k) => k !== n);
    touched();
  }
  function drop(n: number): void {
    d.boxes = (d.boxes ?? []).filter((_, k) => k !== n);
    touched();
  }
</script>

<div class="part">
  <h2>Boxes on the shelf and in the stash</h2>
  <p class="why text-soft text-note mb-1.5 max-w-[820px]">
    Of a used box, what is so of its condition takes its share off the strength it is trusted with: a crushed
    corner or a second journey a fifth, a torn wall three tenths. One that is soft or was wet is not used
    again.
  </p>
  <Wide least="min-w-[1000px]">
    <div
      class="row heads text-soft text-small max-phone:hidden mb-1.5 grid grid-cols-[minmax(120px,2fr)_minmax(130px,2fr)_76px_76px_70px_minmax(90px,1fr)_70px_28px] items-center gap-2"
      aria-hidden="true"
    >
      <span>Name</span><span>Inside</span><span>Board</span><span>Price, {d.currency}</span><span
        >In stock</span
      ><span>Carrier, if it is a carrier's own</span>
    </div>
    {#each d.boxes ?? [] as box, n (box)}
      <div
        class="row box max-phone:[&>*:nth-child(-n+2)]:col-span-full max-phone:grid-cols-2 max-phone:mb-4 mb-1.5 grid grid-cols-[minmax(120px,2fr)_minmax(130px,2fr)_76px_76px_70px_minmax(90px,1fr)_70px_28px] items-center gap-2"
      >
        <Cell
          id="box-{n}-name"
          label="Name of box {n + 1}"
          measure={false}
          bind:value={() => box.name, (v) => (box.name = v)}
          oninput={touched}
          problem={wrong(`boxes[${n}].name`)}
        />
        <Cell
          id="box-{n}-inside"
          label="Inside of box {n + 1}"
          bind:value={() => triple(box.inside), (v) => (box.inside = v)}
          oninput={touched}
          problem={wrong(`boxes[${n}].inside`)}
        />
        <Choose
          labelled="unseen"
          label="Board of box {n + 1}"
          bind:value={box.board}
          change={touched}
          options={d.boards.map((board) => board.code)}
        />
        <Cell
          id="box-{n}-price"
          label="Price of box {n + 1}"
          bind:value={() => box.price ?? '', (v) => (box.price = v)}
          oninput={touched}
          problem={wrong(`boxes[${n}].price`)}
        />
        <Cell
          id="box-{n}-count"
          label="In stock of box {n + 1}"
          bind:value={() => String(box.count ?? ''), (v) => (box.count = v as unknown as number)}
          oninput={touched}
          problem={wrong(`boxes[${n}].count`)}
        />
        <Cell
          id="box-{n}-carrier"
          label="Carrier of box {n + 1}"
          measure={false}
          bind:value={() => box.carrier ?? '', (v) => (box.carrier = v)}
          problem={wrong(`boxes[${n}].carrier`)}
          oninput={touched}
        />
        <Tick bind:checked={box.used} change={touched}>used</Tick>
        <Remove of={box.name || 'this box'} go={() => drop(n)} />
        {#if box.used}
          <details class="text-soft text-note col-span-full">
            <summary class="cursor-pointer"
              >Condition and inserts{box.worn?.length ? `: ${box.worn.length} of 4` : ''}{box.hollow
                ? ', inserts'
                : ''}</summary
            >
            <div class="flex flex-wrap items-center gap-x-4.5 gap-y-1">
              <Wear
                worn={box.worn ?? []}
                change={(worn) => {
                  box.worn = worn as NonNullable<typeof box.worn>;
                  touched();
                }}
              />
              <span>Inside the original inserts, where it has them</span>
              <Cell
                id="box-{n}-hollow"
                label="Inside the original inserts of box {n + 1}"
                bind:value={() => triple(box.hollow), (v) => (box.hollow = v.trim() ? v : null)}
                oninput={touched}
                problem={wrong(`boxes[${n}].hollow`)}
              />
            </div>
          </details>
        {/if}
      </div>
    {/each}
  </Wide>
  <button type="button" class="btn" onclick={add}>Add a box</button>
</div>
{#if d.patterns?.length}
  <div class="part">
    <h2>Patterns for re-cut boxes</h2>
    <div
      class="row heads text-soft text-small max-phone:hidden mb-1.5 grid grid-cols-[minmax(160px,3fr)_minmax(130px,2fr)_minmax(130px,2fr)_28px] items-center gap-2"
      aria-hidden="true"
    >
      <span>Name</span><span>Made from</span><span>Inside, after the folds</span>
    </div>
    {#each d.patterns as pattern, n (pattern)}
      <div
        class="row max-phone:grid-cols-2 max-phone:mb-4 mb-1.5 grid grid-cols-[minmax(160px,3fr)_minmax(130px,2fr)_minmax(130px,2fr)_28px] items-center gap-2"
      >
        <Cell
          id="pattern-{n}-name"
          label="Name of pattern {n + 1}"
          measure={false}
          bind:value={() => pattern.name, (v) => (pattern.name = v)}
          oninput={touched}
          problem={wrong(`patterns[${n}].name`)}
        />
        <Choose
          labelled="unseen"
          label="Box of pattern {n + 1}"
          bind:value={pattern.box}
          change={touched}
          options={sources(pattern.box)}
        />
        <Cell
          id="pattern-{n}-inside"
          label="Inside of pattern {n + 1}"
          bind:value={() => triple(pattern.inside), (v) => (pattern.inside = v)}
          oninput={touched}
          problem={wrong(`patterns[${n}].inside`)}
        />
        <Remove of={pattern.name || 'this pattern'} go={() => dropPattern(n)} />
      </div>
    {/each}
  </div>
{/if}
