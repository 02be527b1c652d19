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
  <section class="ladder" aria-label="Ladder">
    <div class="head">
      <h2>What goes into what</h2>
      <label class="listed"
        >up to <input class="field" id="ladder-most" type="number" min="1" max="80" bind:value={most} /> of it</label
      >
      <button type="button" class="btn" disabled={asking} onclick={() => void work()}
        >{asking ? 'Calculating…' : 'Work out the ladder'}</button
      >
    </div>
    <p class="no" role="alert">{trouble}</p>
    {#if found}
      <table class="sheet" aria-live="polite">
        <thead>
          <tr
            ><th>How many</th><th>Box</th><th>Outside, at most</th><th>Weighs</th><th>By</th><th class="right"
              >In all</th
            ></tr
          >
        </thead>
        <tbody>
          {#each found as one (one.least)}
            <tr>
              <td class="figure count">{range(one)}</td>
              {#if one.way}
                <td>{one.box}</td>
                <td class="figure"><Measured text={one.outside} /></td>
                <td class="figure"><Measured text={one.weighs} /></td>
                <td>{one.service}</td>
                <td class="figure right">{one.total}</td>
              {:else}
                <td colspan="5" class="soft">{one.why_not}</td>
              {/if}
            </tr>
          {/each}
        </tbody>
      </table>
      <p class="deeds">
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

<style>
  .ladder {
    margin-top: 20px;
  }
  .head {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px 16px;
  }
  .head h2 {
    margin-right: auto;
  }
  .listed input {
    width: 66px;
    height: 36px;
    color: var(--ink);
  }
  table {
    width: 100%;
    margin-top: 8px;
    border-collapse: collapse;
    font-size: 14.5px;
  }
  td,
  th {
    padding: 4px 12px 4px 8px;
    border-bottom: 1px solid var(--hair);
    vertical-align: baseline;
  }
  .count {
    font-size: 17px;
    white-space: nowrap;
  }
  .right {
    text-align: right;
  }
  .deeds {
    display: flex;
    gap: 20px;
    margin-top: 6px;
  }
  .soft {
    color: var(--soft);
  }
  .no {
    color: var(--stop);
  }
  .no:empty {
    display: none;
  }
</style>
