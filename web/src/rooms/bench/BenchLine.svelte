<script lang="ts">
  // One line where anything can be typed: a parcel is priced at once, a word finds a job or starts one.
  import { Newest, start } from '../../lib/attempt';
  import { calls, sentence, type LineAnswer } from '../../lib/api/client';
  import { inDays } from '../../lib/days';
  import { keys } from '../../lib/keys.svelte';
  import { router } from '../../lib/router.svelte';
  import { startJob } from './start';

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
          kind: '',
          title: job.title || 'Untitled job',
          to: job.next_move,
        }))
      : []),
    ...(said?.kind === 'jobs'
      ? (said.kinds ?? []).map((kind) => ({
          id: '',
          kind: kind.code,
          title: `Start: ${kind.title}`,
          to: 'with its parts',
        }))
      : []),
    ...(said?.kind === 'price'
      ? [{ id: '', kind: '', title: 'Start a job with these goods', to: 'its box is worked out around them' }]
      : []),
    ...(said?.kind === 'jobs' && text.trim()
      ? [{ id: '', kind: '', title: `Start “${text.trim()}”`, to: 'a new job' }]
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
      if (choice.id) router.go(`/jobs/${choice.id}/measure`);
      else if (priced) await startJob('', null, title);
      else await startJob(choice.kind ? '' : title, choice.kind || null);
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

<div class="line" onfocusout={left}>
  <input
    bind:this={input}
    bind:value={text}
    oninput={() => (answering = ask())}
    onkeydown={pressed}
    onfocus={() => (open = text.trim() !== '')}
    id="bench-line"
    class="field"
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
  <kbd aria-hidden="true">/</kbd>
  {#if open && (said || trouble)}
    <div class="answer">
      {#if trouble}
        <p class="trouble" role="status">{trouble}</p>
      {:else if said?.kind === 'price'}
        <p class="read">{said.read_as}</p>
        <ul aria-label="Prices">
          {#each said.quotes as quote (quote.carrier + quote.service + quote.programme)}
            <li>
              <span
                >{quote.carrier}
                {quote.service}<small>
                  {quote.programme} · {inDays(quote.days)}, billed {quote.billed}</small
                ></span
              >
              <b class="figure">{quote.amount}</b>
            </li>
          {/each}
          {#each said.refused as no, n (n)}
            <li class="no"><span>{no.carrier} {no.service}<small> {no.why}</small></span></li>
          {/each}
        </ul>
      {/if}
      <ul id="line-answer" role="listbox" aria-label="Jobs">
        {#each choices as choice, n (choice.id + choice.kind)}
          <!-- The arrow keys and Enter of the line do it. -->
          <!-- svelte-ignore a11y_click_events_have_key_events -->
          <li
            id="line-{n}"
            role="option"
            tabindex="-1"
            aria-selected={n === at}
            onmousedown={(event) => event.preventDefault()}
            onclick={() => take(n)}
          >
            <span>{choice.title}</span><small>{choice.to}</small>
          </li>
        {/each}
      </ul>
    </div>
  {/if}
</div>

<style>
  .line {
    position: relative;
    flex: 0 1 470px;
  }
  .line .field {
    height: 36px;
    padding-right: 40px;
  }
  .line .field::placeholder {
    color: var(--soft);
    opacity: 1;
  }
  kbd {
    position: absolute;
    right: 8px;
    top: 7px;
    border: 1px solid var(--hair2);
    padding: 0 7px;
    font-size: 13px;
    color: var(--soft);
  }
  .answer {
    position: absolute;
    z-index: 25;
    top: 40px;
    left: 0;
    right: 0;
    min-width: 340px;
    background: var(--sheet);
    border: 1px solid var(--edge);
    border-left: 4px solid var(--twine);
    padding: 6px 0;
  }
  ul[aria-label='Prices'] {
    max-height: 62vh;
    overflow-y: auto;
  }
  .read {
    padding: 4px 14px;
    font-size: 13.5px;
    color: var(--soft);
  }
  .trouble {
    padding: 4px 14px;
    color: var(--stop);
    font-size: 14px;
  }
  li {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
    gap: 14px;
    padding: 7px 14px;
  }
  li[aria-selected='true'] {
    background: var(--twine-pale);
  }
  small {
    margin-left: 0.4em;
    font-size: 13px;
    color: var(--soft);
  }
  .no {
    color: var(--soft);
  }
  @media (max-width: 700px) {
    .line {
      order: 3;
      flex: 1 0 100%;
    }
  }
</style>
