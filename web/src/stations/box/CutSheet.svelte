<script lang="ts">
  // The cut sheet: the blank with every dimension, and the fence settings in the order of cutting.
  import Choose from '../../lib/ui/Choose.svelte';
  import { Tabs } from 'bits-ui';
  import type { JobDesk } from '../../job/job.svelte';
  import type { WayView } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import Measured from '../../lib/ui/Measured.svelte';
  import Why from '../../lib/ui/Why.svelte';
  import FoldUp from './FoldUp.svelte';
  import Inserts from './Inserts.svelte';
  import KeepPattern from './KeepPattern.svelte';
  import Schools from './Schools.svelte';

  interface Props {
    desk: JobDesk;
    way: WayView;
  }
  let { desk, way }: Props = $props();

  let tab = $state('');
  let folding = $state(false);
  const shown = $derived(way.blanks.some((blank) => blank.name === tab) ? tab : (way.blanks[0]?.name ?? ''));
  const foldable = $derived(way.blanks.every((blank) => blank.folds));
  const sheet = $derived(`/api/jobs/${desk.id}/cut-sheet`);
  // Of several boxes there the one in hand.
  const which = $derived(encodeURIComponent(way.item ? `${way.way}/${way.item}` : way.way));
  const flutes = $derived(way.blanks.find((blank) => blank.name === shown)?.flutes);
  const pages = $derived(way.full_size_pages[shop.view?.shop.paper ?? 'letter']);
  const boards = $derived(shop.view?.shop.boards ?? []);

  const get = (event: MouseEvent) => desk.saver.follow(event, 'A sheet');

  function take(code: string): void {
    desk.work.hold(way.way);
    desk.typed.board = code;
    desk.touch();
  }
  const [knife, saw] = $derived(desk.work.view?.cutting_cautions ?? []);
  const firstKnife = $derived(way.steps.findIndex((step) => step.knife));
</script>

<section class="sheet cut min-w-0 px-4 pt-3 pb-3.5" aria-label="Cut sheet">
  <div class="settle mb-2.5 flex flex-wrap items-end gap-x-4 gap-y-2">
    {#if way.from_stock}
      <p class="from text-body"><span>Made from</span>{way.from_stock}</p>
    {:else}<Choose
        id="board"
        label="Board"
        place="h-9.5 w-50"
        value={way.board}
        change={take}
        options={boards.map((one) => [one.code, `${one.code} · ${one.name}`] as const)}
      />{/if}
    {#if way.schools.length > 1}<Schools {desk} {way} />{/if}
    <button
      class="btn btn-main ml-auto"
      disabled={way.chosen || way.too_large !== null}
      onclick={() => desk.choices.chooseBox(way)}
    >
      {way.chosen ? 'Chosen' : 'Choose this box'}
    </button>
    {#if way.more && !way.chosen}<p class="more text-amber text-note basis-full text-right">
        {way.more}
      </p>{/if}
  </div>

  {#if way.too_large}<p class="no text-stop font-strong">
      Not from the sheets in stock: {way.too_large}.
    </p>{/if}
  {#each way.warnings as warning (warning)}<p class="no text-stop font-strong">Warning: {warning}.</p>{/each}
  {#if way.suggested}<p class="note text-soft text-note mb-2">
      {boards.find((one) => one.code === way.suggested)?.name} is certified for it.
      <button class="link" onclick={() => take(way.suggested ?? '')}>Use {way.suggested}</button>
    </p>{/if}
  {#if way.cut_by_others}<p class="note text-soft text-note mb-2">
      It keeps the allowances it was chosen by; the shop's have changed since.
      <button class="link" onclick={() => desk.choices.chooseBox(way)}>Cut by today's</button>
    </p>{/if}
  {#each way.notes as note (note)}<p class="note text-soft text-note mb-2">{note}</p>{/each}
  {#if way.made_over}<KeepPattern {desk} {way} />{/if}

  {#if way.blanks.length}<Tabs.Root value={shown} onValueChange={(value) => (tab = value)}>
      <div
        class="bar border-t-hair flex flex-wrap items-baseline gap-x-4.5 gap-y-1 border-t pt-2 whitespace-nowrap"
      >
        <Tabs.List class="tabs" aria-label="Blanks">
          {#each way.blanks as blank (blank.name)}
            <Tabs.Trigger value={blank.name} class="tab"
              >{blank.name}{blank.count > 1 ? ` × ${blank.count}` : ''}</Tabs.Trigger
            >
          {/each}
        </Tabs.List>
        <span class="size figure">
          <Why of="this blank's size" why={way.blank_why}>
            <Measured text={way.blanks.find((blank) => blank.name === shown)?.size ?? ''} />
          </Why>
        </span>
        {#if foldable}
          <button type="button" class="link" aria-pressed={folding} onclick={() => (folding = !folding)}
            >{folding ? 'Flat' : 'Fold up'}</button
          >
        {/if}
        <span class="ml-auto flex gap-3.5">
          <a class="link" href="{sheet}.pdf?way={which}" target="_blank" onclick={get}>Print</a>
          {#if pages}
            <a class="link" href="{sheet}.pdf?way={which}&scale=full" target="_blank" onclick={get}
              >Full size, {pages} {pages === 1 ? 'page' : 'pages'}</a
            >
          {/if}
          <a class="link" href="{sheet}.dxf?way={which}" download onclick={get}>DXF</a>
          <a class="link" href="{sheet}.csv?way={which}" download onclick={get}>Cut list</a>
          <a class="link" href="{sheet}.svg?way={which}&blank={shown}" download onclick={get}>SVG</a>
        </span>
      </div>
      {#if folding && foldable}<FoldUp {desk} way={way.way} blank={shown} />{/if}
      {#each way.blanks as blank (blank.name)}
        <Tabs.Content value={blank.name} class={folding && foldable ? 'drawing behind' : 'drawing'}>
          <!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn by our own server, its words escaped there -->
          {#if blank.svg}{@html blank.svg}{/if}
        </Tabs.Content>
        {#if blank.name === shown}
          <ul class="key">
            {#each blank.key ?? [] as line (line.means)}
              <li>
                <svg viewBox="0 0 36 8" aria-hidden="true"
                  ><line
                    x1="0"
                    x2="36"
                    y1="4"
                    y2="4"
                    stroke="currentColor"
                    stroke-width={line.width * 12}
                    stroke-dasharray={line.dash.map((one) => one * 12).join(' ')}
                  /></svg
                >{line.means}
              </li>
            {/each}
          </ul>
        {/if}
      {/each}
    </Tabs.Root>
  {:else}
    <div
      class="bar border-t-hair flex flex-wrap items-baseline gap-x-4.5 gap-y-1 border-t pt-2 whitespace-nowrap"
    >
      <span class="ml-auto flex gap-3.5">
        <a class="link" href="{sheet}.pdf?way={which}" target="_blank" onclick={get}>Print</a>
      </span>
    </div>
    {#if way.standing}
      <div class="drawing">
        <!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn by our own server, its words escaped there -->
        {@html way.standing}
      </div>
    {/if}
  {/if}

  {#if way.steps.length}
    <ol class="steps text-body mx-0 my-2 [counter-reset:step]">
      {#each way.steps as step, n (n)}
        <li class:knife={step.knife}>
          {step.do}{#if step.knife}<em>knife</em>{/if}
          {#if n === firstKnife}<small>{knife}</small>{/if}
        </li>
      {/each}
    </ol>
  {/if}

  {#if way.fence.length}<p class="saw">{saw}</p>
    <table class="text-note w-full border-collapse">
      <thead>
        <tr
          ><th class="border-0 py-0.75 pr-2 pl-0">Fence or mark, {shop.units}</th><th
            class="border-0 py-0.75 pr-2 pl-0">Blade</th
          ><th class="border-0 py-0.75 pr-2 pl-0">Do, in this order</th><th
            class="end border-0 py-0.75 pr-2 pl-0">Cuts</th
          ></tr
        >
      </thead>
      <tbody>
        {#each way.fence as setting, n (n)}
          <tr>
            <td class="figure border-t-hair text-head w-24 border-t py-0.75 pr-2 pl-0 leading-[1.2]"
              ><Measured text={setting.fence} /></td
            >
            <td class="border-t-hair border-t py-0.75 pr-2 pl-0">{setting.blade}</td>
            <td class="border-t-hair border-t py-0.75 pr-2 pl-0">{setting.do}</td>
            <td class="end border-t-hair border-t py-0.75 pr-2 pl-0">{setting.cuts}</td>
          </tr>
        {/each}
      </tbody>
    </table>{/if}

  <p class="stock">
    {#if way.sheets.length}{way.sheets.join('; ')}.{/if}
    {#if flutes && flutes !== 'either way'}Flutes {flutes}.{/if}
    Inside <Measured text={way.inside.figure.text} />. {way.strength}.
  </p>
  {#each way.inserts as says (says)}<p class="stock">{says}</p>{/each}
  {#if way.compared}<p class="stock">{way.compared}</p>{/if}
  <Inserts {desk} />
</section>

<style>
  .from span {
    display: block;
    font-size: var(--text-small);
    color: var(--soft);
  }

  .steps li {
    counter-increment: step;
    padding: 5px 0 5px 30px;
    border-top: 1px solid var(--hair);
  }
  .steps li::before {
    content: counter(step);
    float: left;
    margin-left: -30px;
    font-family: var(--font-mono);
    color: var(--soft);
  }
  .steps em {
    margin-left: 8px;
    font-style: normal;
    font-size: var(--text-small);
    color: var(--stop);
  }

  :global(.tabs) {
    display: flex;
    gap: 16px;
  }
  :global(.tab) {
    color: var(--soft);
    padding: 2px 0;
    border-bottom: 2px solid transparent;
  }
  :global(.tab)::first-letter {
    text-transform: uppercase;
  }
  :global(.tab[data-state='active']) {
    color: var(--ink);
    font-weight: 620;
    border-bottom-color: var(--twine);
  }
  .cut :global(.drawing) {
    height: 330px;
    margin: 6px 0;
    display: grid;
    place-items: center;
  }
  .cut :global(.behind),
  .cut :global(.drawing[hidden]) {
    display: none;
  }
  .cut :global(.drawing svg) {
    width: 100%;
    height: 330px;
    font-family: var(--font-sans);
  }
  .cut :global(.drawing .board) {
    fill: var(--board-pale);
  }
  .cut :global(.drawing .dimension) {
    font-family: var(--font-mono);
    font-weight: 600;
    letter-spacing: -0.05em;
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 0.3em;
  }
  .cut :global(.drawing .note) {
    fill: var(--board-deep);
  }

  .end {
    text-align: right;
    padding-right: 0;
  }
  .key {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 18px;
    font-size: var(--text-small);
    color: var(--soft);
  }
  .key svg {
    display: inline-block;
    width: 36px;
    height: 8px;
    margin-right: 6px;
    vertical-align: middle;
  }
  .stock {
    margin-top: 8px;
    font-size: var(--text-note);
    color: var(--soft);
  }
  .steps small,
  .saw {
    display: block;
    font-size: var(--text-small);
    color: var(--soft);
    padding-left: 10px;
    border-left: 3px solid var(--stop);
    margin: 3px 0;
  }
</style>
