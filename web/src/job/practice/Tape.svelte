<script lang="ts">
  // The end of a tape along one side of the goods: marks, numbers, and where the side ends on it.
  interface Props {
    side: string;
    endsMm: number;
    units: 'in' | 'cm';
  }
  let { side, endsMm, units }: Props = $props();

  const WIDE = 300;
  const EDGE = 210; // where the side ends, in the picture
  const inch = $derived(units === 'in');
  const unit = $derived(inch ? 25.4 : 10);
  const parts = $derived(inch ? 16 : 10);
  /** How wide one unit is drawn, so that its smallest marks can be told apart. */
  const drawn = $derived(inch ? 118 : 62);
  const ends = $derived(endsMm / unit);
  const x = (n: number) => EDGE + (n - ends) * drawn;
  const first = $derived(Math.ceil((ends - EDGE / drawn) * parts));
  const last = $derived(Math.floor((ends + (WIDE - EDGE) / drawn) * parts));
  const marks = $derived(Array.from({ length: last - first + 1 }, (_, n) => first + n));

  /** Half, quarter, eighth, sixteenth of an inch; whole, half and tenth of a centimetre. */
  function long(mark: number): number {
    if (mark % parts === 0) return 30;
    if (mark % (parts / 2) === 0) return 22;
    if (inch && mark % 4 === 0) return 16;
    if (inch && mark % 2 === 0) return 11;
    return inch ? 7 : 11;
  }
</script>

<figure>
  <figcaption class="text-soft text-small"><span class="capitalize">{side}</span>, {units}</figcaption>
  <svg viewBox="0 0 {WIDE} 96" class="w-full" role="img" aria-label="A tape along the {side} of the reel">
    <rect class="goods" x="0" y="0" width={EDGE} height="34" />
    <line class="edge" x1={EDGE} y1="0" x2={EDGE} y2="96" />
    <rect class="tape" x="0" y="40" width={WIDE} height="52" />
    {#each marks as mark (mark)}
      <line class="mark" x1={x(mark / parts)} y1="40" x2={x(mark / parts)} y2={40 + long(mark)} />
      {#if mark % parts === 0}<text x={x(mark / parts) + 4} y="86">{mark / parts}</text>{/if}
    {/each}
  </svg>
</figure>

<style>
  .goods {
    fill: var(--board-pale);
  }
  .tape {
    fill: var(--sheet);
    stroke: var(--edge);
  }
  .mark {
    stroke: var(--ink);
    stroke-width: 1;
  }
  .edge {
    stroke: var(--twine);
    stroke-width: 2;
  }
  text {
    fill: var(--ink);
    font-weight: 600;
    font-size: 15px;
    font-family: var(--font-mono, inherit);
  }
</style>
