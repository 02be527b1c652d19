<script lang="ts">
  // A carrier's tariff begun from a form: how it prices, with placeholders until its own prices are pasted.
  import { attempt } from '../../lib/attempt';
  import { calls, type TariffFormRow, type TariffRow } from '../../lib/api/client';
  import Choose from '../../lib/ui/Choose.svelte';
  import Field from '../../lib/ui/Field.svelte';

  interface Props {
    begun: (row: TariffRow) => void;
  }
  let { begun }: Props = $props();

  let forms = $state.raw<TariffFormRow[]>([]);
  let form = $state<TariffFormRow['code']>('zone-weight');
  let carrier = $state('');
  let trouble = $state('');
  const about = $derived(forms.find((one) => one.code === form)?.about ?? '');

  void attempt(async () => (forms = await calls.tariffForms()));

  async function begin(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    if (!carrier.trim()) {
      trouble = 'Carrier: its name is missing.';
      document.getElementById('begin-carrier')?.focus();
      return;
    }
    const row = await attempt(
      () => calls.beginTariff({ form, carrier: carrier.trim() }),
      (said) => (trouble = said),
    );
    if (!row) return;
    carrier = trouble = '';
    begun(row);
  }
</script>

<form
  class="max-phone:grid-cols-1 grid grid-cols-[minmax(0,240px)_minmax(0,260px)_auto] items-end gap-3"
  onsubmit={(event) => void begin(event)}
  aria-label="Begin a tariff"
>
  <Field
    id="begin-carrier"
    label="Carrier"
    note={false}
    most={80}
    bind:value={carrier}
    oninput={() => (trouble = '')}
  />
  <Choose
    id="begin-form"
    label="How it prices"
    bind:value={form}
    options={forms.map((one) => [one.code, one.title] as const)}
  />
  <button class="btn" type="submit">Begin its tariff</button>
</form>
<p class="text-soft text-note mt-1 min-h-5">{about}</p>
<p class="text-stop text-note min-h-5" role="alert">{trouble}</p>
