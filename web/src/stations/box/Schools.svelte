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

<fieldset>
  <legend>Allowance</legend>
  {#each way.schools as school (school)}
    <label class:on={school === way.school}>
      <input
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
          <thead><tr><th></th><th>{NAMES[way.school]}</th><th>{NAMES[other.school]}</th></tr></thead>
          <tbody>
            {#each way.blanks as blank, n (blank.name)}
              <tr
                ><th>{blank.name}</th><td><Measured text={blank.size} /></td><td
                  ><Measured text={other.blanks[n]?.size ?? ''} /></td
                ></tr
              >
            {/each}
            <tr
              ><th>inside</th><td><Measured text={way.inside.figure.text} /></td><td
                ><Measured text={other.inside} /></td
              ></tr
            >
            <tr
              ><th>outside</th><td><Measured text={way.outside.figure.text} /></td><td
                ><Measured text={other.outside} /></td
              ></tr
            >
          </tbody>
        </table>
        {#each other.notes as note (note)}<p>{note}</p>{/each}
      </Popover.Content>
    </Popover.Portal>
  </Popover.Root>
{/if}

<style>
  fieldset {
    display: flex;
    gap: 12px;
    align-items: center;
    min-height: 38px;
  }
  legend {
    float: left;
    font-size: 13.5px;
    color: var(--soft);
  }
  label {
    display: flex;
    gap: 5px;
    align-items: center;
    color: var(--soft);
    white-space: nowrap;
  }
  .on {
    color: var(--ink);
    font-weight: 600;
  }
  input {
    accent-color: var(--twine);
    width: 16px;
    height: 16px;
  }
  :global(.differ) {
    font-size: 14px;
    min-height: 38px;
    white-space: nowrap;
  }
  td,
  th {
    padding: 3px 14px 3px 0;
    text-align: left;
  }
  p {
    margin-top: 6px;
    font-size: 13.5px;
    color: var(--soft);
  }
</style>
