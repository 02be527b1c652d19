<script lang="ts">
  // Labels and papers of a job as PDF, opened beside; what is printed is what is saved.
  import { attempt, start } from '../../lib/attempt';
  import { calls } from '../../lib/api/client';
  import { shop } from '../../lib/shop.svelte';
  import { toast } from '../../lib/toast.svelte';

  interface Props {
    id: string;
    /** The label alone, at the step where it goes on. */
    label?: boolean;
    /** Saves what is typed; whether all of it is saved. */
    settle: () => Promise<boolean>;
  }
  let { id, label = false, settle }: Props = $props();

  const LABELS = [
    ['label.pdf', 'Label, 4 x 6 in'],
    ['label.pdf?size=half', 'Label, half a page'],
    ['label.png', 'Label as a picture'],
    ['papers.pdf', 'All papers of the job'],
  ] as const;
  const PAPERS = [
    ['papers.pdf?only=slip', 'Packing slip'],
    ['papers.pdf?only=checklist', 'Closing check'],
    ['papers.pdf?only=repack', 'To pack it again'],
    ['papers.pdf?only=exhibit', 'Exhibit sheet'],
  ] as const;

  let printing = $state(false);
  /** Sends it to the shop's printer, once however often it is pressed meanwhile. */
  async function out(what: 'label' | 'papers'): Promise<void> {
    if (printing) return;
    printing = true;
    const came = await attempt(async () => ((await settle()) ? calls.print(id, what) : null));
    if (came) toast.show(`${came.pages} ${came.pages === 1 ? 'page' : 'pages'} printed.`);
    printing = false;
  }

  function print(event: MouseEvent): void {
    event.preventDefault();
    const link = event.currentTarget as HTMLAnchorElement;
    start(async () => {
      if (await settle()) window.open(link.href, '_blank', 'noopener');
    });
  }
</script>

{#if shop.view?.shop.printer}
  <p class="mt-2.5 flex flex-wrap gap-3">
    <button class="btn" disabled={printing} onclick={() => start(() => out('label'))}>Print the label</button>
    {#if !label}<button class="btn" disabled={printing} onclick={() => start(() => out('papers'))}
        >Print all papers</button
      >{/if}
  </p>
{/if}
<ul class="mt-2.5 flex flex-wrap gap-x-5 gap-y-1.5">
  {#each label ? LABELS : [...LABELS, ...PAPERS] as [file, words] (file)}
    <li>
      <a class="link" href="/api/jobs/{id}/{file}" target="_blank" rel="noopener" onclick={print}>{words}</a>
    </li>
  {/each}
</ul>
