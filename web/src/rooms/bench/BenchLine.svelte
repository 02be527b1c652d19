<script lang="ts">
  // One line where anything can be typed: a parcel is priced at once, a word finds a job or starts one.
  import { Newest, start } from '../../lib/attempt';
  import { calls, sentence, type LineAnswer } from '../../lib/api/client';
  import { inDays } from '../../lib/days';
  import { keys } from '../../lib/keys.svelte';
  import { router } from '../../lib/router.svelte';
  import { startJob } from './start';
  import { stationOf } from './station';

  let text = $state('');
  let said = $state<LineAnswer | null>(null);
  let trouble = $state('');
  let open = $state(false);
  let at = $state(0);
  let input: HTMLInputElement;
  const newest = new Newest();
  let answering = Promise.resolve();

  const choices = $derived([
    ...(said?.kind === 'jobs'
      ? (said.jobs ?? []).map((job) => ({
          id: job.id,
          at: stationOf(job),
          kind: '',
          title: job.title || 'Untitled job',
          to: job.next_move,
        }))
      : []),
    ...(said?.kind === 'jobs'
      ? (said.kinds ?? []).map((kind) => ({
          id: '',
          at: '',
          kind: kind.code,
          title: `Start: ${kind.title}`,
          to: 'with its parts',
        }))
      : []),
    ...(said?.kind === 'price'
      ? [
          {
            id: '',
            at: '',
            kind: '',
            title: 'Start a job with these goods',
            to: 'its box is worked out around them',
          },
        ]
      : []),
    ...(said?.kind === 'jobs' && text.trim()
      ? [{ id: '', at: '', kind: '', title: `Start “${text.trim()}”`, to: 'a new job' }]
      : []),
  ]);

  $effect(() =>
    keys.add([
      {
        key: '/',
        does: 'to the line: a size to price, a job to find or start',
        act: () => input.focus(),
      },
    ]),
  );

  async function ask(): Promise<void> {
    newest.stop();
    at = 0;
    if (!text.trim()) {
      said = null;
      trouble = '';
      open = false;
      return;
    }
    open = true;
    await newest.ask(
      (signal) => calls.line(text, signal),
      (found) => {
        said = found;
        trouble = '';
      },
      (fault) => {
        said = null;
        trouble = sentence(fault);
      },
    );
  }

  /** Whether what was typed is only what its kind is called, and no name of its own. */
  const isOfKind = (kind: string, typed: string) => kind.toLowerCase().includes(typed.toLowerCase());

  async function take(n: number): Promise<void> {
    const choice = choices[n];
    if (!choice) return;
    const title = text.trim();
    const priced = said?.kind === 'price';
    text = '';
    said = null;
    open = false;
    input.blur();
    try {
      if (choice.id) router.go(`/jobs/${choice.id}/${choice.at}`);
      else if (priced) await startJob('', null, title);
      else await startJob(choice.kind && isOfKind(choice.title, title) ? '' : title, choice.kind || null);
    } catch (fault) {
      text = title;
      open = true;
      trouble = sentence(fault);
    }
  }

  function pressed(event: KeyboardEvent): void {
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      const step = event.key === 'ArrowDown' ? 1 : choices.length - 1;
      at = choices.length ? (at + step) % choices.length : 0;
    } else if (event.key === 'Enter') {
      event.preventDefault();
      start(() => answering.then(() => take(at))); // Enter may be quicker than the answer
    } else if (event.key === 'Escape') {
      open = false;
    }
  }

  function left(event: FocusEvent): void {
    if (!(event.currentTarget as HTMLElement).contains(event.relatedTarget as Node | null)) open = false;
  }
</script>

<div
  class="line max-phone:order-3 max-phone:flex-[1_0_100%] relative min-w-0 flex-[0_1_470px]"
  onfocusout={left}
>
  <input
    bind:this={input}
    bind:value={text}
    oninput={() => (answering = ask())}
    onkeydown={pressed}
    onfocus={() => (open = text.trim() !== '')}
    id="bench-line"
    class="field h-9 pr-10"
    type="text"
    role="combobox"
    aria-label="A size to price, a job to find or start"
    aria-expanded={open}
    aria-controls="line-answer"
    aria-activedescendant={open && choices.length ? `line-${at}` : undefined}
    autocomplete="off"
    spellcheck="false"
    placeholder="Size and place, a kind of goods, or a job"
  />
  <kbd
    class="border-hair2 text-soft text-small absolute top-1.75 right-2 border px-1.75 py-0"
    aria-hidden="true">/</kbd
  >
  {#if open && (said || trouble)}
    <div
      class="answer bg-sheet border-t-edge border-r-edge border-b-edge border-l-twine absolute top-10 right-0 left-0 z-25 min-w-85 border-t border-r border-b border-l-4 px-0 py-1.5"
    >
      {#if trouble}
        <p class="trouble text-stop text-note px-3.5 py-1" role="status">{trouble}</p>
      {:else if said?.kind === 'price'}
        <p class="read text-soft text-small px-3.5 py-1">{said.read_as}</p>
        <ul class="max-h-[62vh] overflow-y-auto" aria-label="Prices">
          {#each said.quotes as quote (quote.carrier + quote.service + quote.programme)}
            <li class="flex items-baseline justify-between gap-3.5 px-3.5 py-1.75">
              <span
                >{quote.carrier}
                {quote.service}<small class="text-soft text-small ml-[0.4em]">
                  {quote.programme} · {inDays(quote.days)}, billed {quote.billed}</small
                ></span
              >
              <b class="figure">{quote.amount}</b>
            </li>
          {/each}
          {#each said.refused as no, n (n)}
            <li class="no text-soft flex items-baseline justify-between gap-3.5 px-3.5 py-1.75">
              <span
                >{no.carrier}
                {no.service}<small class="text-soft text-small ml-[0.4em]"> {no.why}</small></span
              >
            </li>
          {/each}
        </ul>
      {/if}
      <ul id="line-answer" role="listbox" aria-label="Jobs">
        {#each choices as choice, n (choice.id + choice.kind)}
          <!-- The arrow keys and Enter of the line do it. -->
          <!-- svelte-ignore a11y_click_events_have_key_events -->
          <li
            class="aria-selected:bg-twine-pale flex items-baseline justify-between gap-3.5 px-3.5 py-1.75"
            id="line-{n}"
            role="option"
            tabindex="-1"
            aria-selected={n === at}
            onmousedown={(event) => event.preventDefault()}
            onclick={() => take(n)}
          >
            <span>{choice.title}</span><small class="text-soft text-small ml-[0.4em]">{choice.to}</small>
          </li>
        {/each}
      </ul>
    </div>
  {/if}
</div>

<style>
  .line .field::placeholder {
    color: var(--soft);
    opacity: 1;
  }
</style>
