<script lang="ts">
  // A button that takes or picks photographs and sends them in; what is none is told.
  import { attempt } from '../attempt';
  import { calls } from '../api/client';
  import { toast } from '../toast.svelte';

  interface Props {
    words: string;
    /** Of what, for a screen reader. */
    label: string;
    look?: 'btn' | 'link';
    /** Takes the names of the files that are kept now. */
    taken: (files: string[]) => void;
  }
  let { words, label, look = 'btn', taken }: Props = $props();

  let input = $state<HTMLInputElement>();

  async function send(files: FileList | null): Promise<void> {
    if (!files?.length) return;
    const answers = (await attempt(() => calls.sendFiles([...files]))) ?? [];
    for (const one of answers) if (!one.photo) toast.show(one.problem || `${one.called} is no photograph.`);
    if (input) input.value = '';
    const kept = answers.flatMap((one) => one.photo || []);
    if (kept.length) taken(kept);
  }
</script>

<button class={look} onclick={() => input?.click()}>{words}</button>
<input
  bind:this={input}
  class="sr-only"
  type="file"
  accept="image/*"
  capture="environment"
  tabindex="-1"
  aria-label={label}
  onchange={(event) => void send(event.currentTarget.files)}
/>
