<script lang="ts">
  // What so many of the one thing go into, up to which count: to look at, to print, to keep as house rules.
  import { onDestroy } from 'svelte';
  import { attempt, Newest } from '../../lib/attempt';
  import type { JobDesk } from '../../job/job.svelte';
  import { calls, sentence, type RungView, type ShopFile } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import { toast } from '../../lib/toast.svelte';
  import Measured from '../../lib/ui/Measured.svelte';

  interface Props {
    desk: JobDesk;
  }
  let { desk }: Props = $props();

  let most = $state<number | null>(12);
  let found = $state.raw<RungView[] | null>(null);
  let trouble = $state('');
  let asking = $state(false);
  const newest = new Newest();
  const upTo = $derived(Math.min(Math.max(Math.round(most ?? 12), 1), 80));
  const things = $derived(desk.typed.parts.length);

  async function work(): Promise<void> {
    trouble = '';
    asking = true;
    await newest.ask(
      (signal) => calls.ladder({ job: desk.job, most: upTo }, signal),
      (rungs) => (found = rungs),
      (fault) => (trouble = sentence(fault)),
    );
    asking = newest.waits;
  }
  onDestroy(() => newest.stop());

  const range = (one: RungView) => (one.least === one.most ? `${one.least}` : `${one.least}–${one.most}`);

  /** Each rung as a rule for the kind of goods this job was begun from. */
  async function keep(): Promise<void> {
    await shop.ready();
    const before = shop.view?.shop.rules ?? [];
    const names = [...(shop.view?.shop.boxes ?? []), ...(shop.view?.shop.mailers ?? [])].map(
      (one) => one.name,
    );
    const part = desk.typed.parts[0]?.name || desk.typed.title || 'goods';
    const rules = (found ?? [])
      .filter((one) => one.way)
      .map((one) => ({
        name: `${part}, ${range(one)}`.slice(0, 80),
        kind: desk.kind,
        things_from: one.least,
        things_to: one.most,
        ways: [one.way] as NonNullable<ShopFile['rules']>[number]['ways'],
        box: names.includes(one.item) ? one.item : '',
      }));
    const others = before.filter((rule) => !rules.some((one) => one.name === rule.name));
    await attempt(async () => {
      await shop.change({ rules: [...others, ...rules] as ShopFile['rules'] });
      desk.touch();
      toast.show(`${rules.length} house rules are kept.`, () => shop.change({ rules: before }));
    });
  }
</script>

{#if things === 1}
  <section class="ladder mt-5" aria-label="Ladder">
    <div class="flex flex-wrap items-center gap-x-4 gap-y-2">
      <h2 class="mr-auto">What goes into what</h2>
      <label class="listed"
        >up to <input
          class="field text-ink h-9 w-16.5"
          id="ladder-most"
          type="number"
          min="1"
          max="80"
          bind:value={most}
        /> of it</label
      >
      <button type="button" class="btn" disabled={asking} onclick={() => void work()}
        >{asking ? 'Calculating…' : 'Work out the ladder'}</button
      >
    </div>
    <p class="no text-stop empty:hidden" role="alert">{trouble}</p>
    {#if found}
      <table class="sheet text-note mt-2 w-full border-collapse" aria-live="polite">
        <thead>
          <tr
            ><th class="border-b-hair border-b py-1 pr-3 pl-2 align-baseline">How many</th><th
              class="border-b-hair border-b py-1 pr-3 pl-2 align-baseline">Box</th
            ><th class="border-b-hair border-b py-1 pr-3 pl-2 align-baseline">Outside, at most</th><th
              class="border-b-hair border-b py-1 pr-3 pl-2 align-baseline">Weighs</th
            ><th class="border-b-hair border-b py-1 pr-3 pl-2 align-baseline">By</th><th
              class="right border-b-hair border-b py-1 pr-3 pl-2 text-right align-baseline">Total</th
            ></tr
          >
        </thead>
        <tbody>
          {#each found as one (one.least)}
            <tr>
              <td
                class="figure count border-b-hair text-lead border-b py-1 pr-3 pl-2 align-baseline whitespace-nowrap"
                >{range(one)}</td
              >
              {#if one.way}
                <td class="border-b-hair border-b py-1 pr-3 pl-2 align-baseline">{one.box}</td>
                <td class="figure border-b-hair border-b py-1 pr-3 pl-2 align-baseline"
                  ><Measured text={one.outside} /></td
                >
                <td class="figure border-b-hair border-b py-1 pr-3 pl-2 align-baseline"
                  ><Measured text={one.weighs} /></td
                >
                <td class="border-b-hair border-b py-1 pr-3 pl-2 align-baseline">{one.service}</td>
                <td class="figure right border-b-hair border-b py-1 pr-3 pl-2 text-right align-baseline"
                  >{one.total}</td
                >
              {:else}
                <td colspan="5" class="border-b-hair text-soft border-b py-1 pr-3 pl-2 align-baseline"
                  >{one.why_not}</td
                >
              {/if}
            </tr>
          {/each}
        </tbody>
      </table>
      <p class="mt-1.5 flex gap-5">
        <a
          class="link"
          href="/api/jobs/{desk.id}/ladder.pdf?most={upTo}"
          target="_blank"
          onclick={(event) => desk.saver.follow(event, 'A ladder')}>Print the ladder</a
        >
        {#if desk.kind}
          <button type="button" class="link" onclick={() => void keep()}>Keep it as house rules</button>
        {/if}
      </p>
    {/if}
  </section>
{/if}
