<script lang="ts">
  // A measure with its fractions set as fractions. Read aloud, and copied, it stays "10 5/16 in".
  interface Props {
    text: string;
    unitSoft?: boolean;
  }
  let { text, unitSoft = true }: Props = $props();

  const pieces = $derived(
    text
      .replaceAll(' x ', '×')
      .split(/ ?(\d+\/\d+)|(×)| ([a-z]+)(?= |$)/)
      .filter((piece) => piece)
      .map((piece) => {
        const fraction = /^(\d+)\/(\d+)$/.exec(piece);
        if (fraction) return { top: fraction[1], bottom: fraction[2] };
        return { plain: piece, look: piece === '×' ? 'times' : /^[a-z]+$/.test(piece) ? 'unit' : '' };
      }),
  );
</script>

<span class="measured" data-text={text}
  >{#each pieces as piece, n (n)}{#if piece.top}<span class="fraction"
        ><span>{piece.top}</span><span class="slash">/</span><span class="bottom">{piece.bottom}</span></span
      >{:else}<span class={piece.look} class:soft={unitSoft}>{piece.plain}</span>{/if}{/each}</span
>

<style>
  .measured {
    white-space: nowrap;
  }
  .fraction {
    display: inline-flex;
    flex-direction: column;
    vertical-align: middle;
    margin: 0 0.04em 0.12em 0.12em;
    font-size: 0.56em;
    line-height: 1.02;
    text-align: center;
    letter-spacing: 0;
    position: relative;
  }
  .bottom {
    border-top: 1.5px solid currentColor;
  }
  .slash {
    position: absolute;
    opacity: 0;
    pointer-events: none;
  }
  .times {
    margin: 0 0.16em;
    font-weight: 400;
  }
  .unit {
    margin-left: 0.28em;
    font-family: var(--font-sans);
    font-size: 0.8em;
    font-weight: 500;
    letter-spacing: 0;
  }
  .unit.soft {
    color: var(--soft);
  }
</style>
