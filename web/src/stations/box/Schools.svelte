<script lang="ts">
  // Two schools of allowance: which one is used, and where the other one differs.
  import { Popover } from 'bits-ui';
  import type { JobDesk } from '../../job/job.svelte';
  import type { WayView } from '../../lib/api/client';
  import Measured from '../../lib/ui/Measured.svelte';

  interface Props {
    desk: JobDesk;
    way: WayView;
  }
  let { desk, way }: Props = $props();

  const NAMES = { exact: 'Exact, by caliper', thumb: 'Rule of thumb' };
  const other = $derived(way.other_school);

  function take(school: 'exact' | 'thumb'): void {
    desk.work.hold(way.way);
    desk.typed.school = school;
    desk.touch();
  }
</script>

<fieldset class="flex min-h-9.5 items-center gap-3">
  <legend class="text-soft text-small [float:left]">Allowance</legend>
  {#each way.schools as school (school)}
    <label class="text-soft flex items-center gap-1.25 whitespace-nowrap" class:on={school === way.school}>
      <input
        class="accent-twine h-4 w-4"
        type="radio"
        name="school"
        value={school}
        checked={school === way.school}
        onchange={() => take(school)}
      />
      {NAMES[school]}
    </label>
  {/each}
</fieldset>
{#if other}
  <Popover.Root>
    <Popover.Trigger class="link differ">Where they differ</Popover.Trigger>
    <Popover.Portal to="#work">
      <Popover.Content
        class="why-slip"
        sideOffset={6}
        collisionPadding={12}
        aria-label="Where the schools differ"
      >
        <table>
          <thead
            ><tr
              ><th class="py-0.75 pr-3.5 pl-0 text-left"></th><th class="py-0.75 pr-3.5 pl-0 text-left"
                >{NAMES[way.school]}</th
              ><th class="py-0.75 pr-3.5 pl-0 text-left">{NAMES[other.school]}</th></tr
            ></thead
          >
          <tbody>
            {#each way.blanks as blank, n (blank.name)}
              <tr
                ><th class="py-0.75 pr-3.5 pl-0 text-left">{blank.name}</th><td
                  class="py-0.75 pr-3.5 pl-0 text-left"><Measured text={blank.size} /></td
                ><td class="py-0.75 pr-3.5 pl-0 text-left"><Measured text={other.blanks[n]?.size ?? ''} /></td
                ></tr
              >
            {/each}
            <tr
              ><th class="py-0.75 pr-3.5 pl-0 text-left">inside</th><td class="py-0.75 pr-3.5 pl-0 text-left"
                ><Measured text={way.inside.figure.text} /></td
              ><td class="py-0.75 pr-3.5 pl-0 text-left"><Measured text={other.inside} /></td></tr
            >
            <tr
              ><th class="py-0.75 pr-3.5 pl-0 text-left">outside</th><td class="py-0.75 pr-3.5 pl-0 text-left"
                ><Measured text={way.outside.figure.text} /></td
              ><td class="py-0.75 pr-3.5 pl-0 text-left"><Measured text={other.outside} /></td></tr
            >
          </tbody>
        </table>
        {#each other.notes as note (note)}<p class="text-soft text-small mt-1.5">{note}</p>{/each}
      </Popover.Content>
    </Popover.Portal>
  </Popover.Root>
{/if}

<style>
  .on {
    color: var(--ink);
    font-weight: 600;
  }

  :global(.differ) {
    font-size: var(--text-note);
    min-height: 38px;
    white-space: nowrap;
  }
</style>
