<script lang="ts">
  // Prices that hold from a day on, beside today's: all raised by so much, or read from the carrier's new tariff file.
  import { attempt } from '../../lib/attempt';
  import { calls, sentence, type TariffRow } from '../../lib/api/client';
  import { dayInWords } from '../../lib/days';
  import { toast } from '../../lib/toast.svelte';
  import Choose from '../../lib/ui/Choose.svelte';
  import Field from '../../lib/ui/Field.svelte';
  import Slip from '../../lib/ui/Slip.svelte';

  interface Props {
    row: TariffRow;
    kept: (row: TariffRow) => void;
  }
  let { row, kept }: Props = $props();

  let open = $state(false);
  let from = $state('');
  let how = $state<'raise' | 'file'>('raise');
  let percent = $state('');
  let file = $state<HTMLInputElement>();
  let trouble = $state('');
  const carrier = $derived(row.carrier);
  const revision = $derived(row.revision);

  function opened(): void {
    from = `${new Date().getFullYear() + 1}-01-01`;
    trouble = '';
  }

  async function save(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const chosen = file?.files?.[0];
    if (how === 'raise' && !percent.trim()) {
      trouble = 'Per cent: how much the prices go up by is missing.';
      return;
    }
    if (how === 'file' && !chosen) {
      trouble = 'Tariff file: none is chosen.';
      return;
    }
    let tariff: Record<string, never> | null = null;
    if (how === 'file' && chosen)
      try {
        tariff = JSON.parse(await chosen.text()) as Record<string, never>;
      } catch (fault) {
        trouble = `${chosen.name}: ${sentence(fault)}`;
        return;
      }
    const found = await attempt(
      () => calls.comingPrices(carrier, { revision, from, percent: tariff ? null : percent, tariff }),
      (said) => (trouble = said),
    );
    if (!found) return;
    open = false;
    kept(found);
    toast.show(`${carrier} has prices from ${dayInWords(from)} beside today's.`, async () => {
      kept(await calls.tariffVersion(carrier, revision));
    });
  }
</script>

<Slip
  bind:open
  {opened}
  opener="Add coming prices"
  title="Coming prices of {carrier}"
  about="They stand beside today's, which end the day before. A job is priced by those of its ship date."
>
  <form class="my-3 grid gap-3" onsubmit={(event) => void save(event)}>
    <Field id="coming-from" label="From" type="date" note={false} bind:value={from} />
    <Choose
      id="coming-how"
      label="Prices"
      bind:value={how}
      options={[
        ['raise', "today's, raised by a per cent"],
        ['file', 'from a tariff file'],
      ]}
    />
    {#if how === 'raise'}
      <Field
        id="coming-percent"
        label="Every price up by, per cent"
        measure
        most={20}
        note={false}
        bind:value={percent}
        oninput={() => (trouble = '')}
      />
      <p class="text-soft text-small">
        To the nearest cent. Fuel and other per cents stay; tables are changed afterwards under <em
          >Change it</em
        >.
      </p>
    {:else}
      <div>
        <label class="text-soft text-small mb-0.5 block" for="coming-file">Tariff file of {carrier}</label>
        <input id="coming-file" class="field h-auto py-1.5" type="file" accept=".json" bind:this={file} />
      </div>
    {/if}
    <p class="text-stop text-note min-h-5" role="alert">{trouble}</p>
    <button class="btn btn-main" type="submit">Save coming prices</button>
  </form>
</Slip>
