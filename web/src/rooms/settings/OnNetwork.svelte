<script lang="ts">
  // The shop on its own network: its address, a code for a tablet to scan, the devices signed in, the passphrase.
  import { attempt, start } from '../../lib/attempt';
  import { calls, type AccessView } from '../../lib/api/client';
  import { toast } from '../../lib/toast.svelte';

  let access = $state.raw<AccessView | null>(null);
  let code = $state.raw<{ address: string; svg: string } | null>(null);
  let words = $state('');
  let trouble = $state('');

  void attempt(async () => (access = await calls.access()));

  async function show(): Promise<void> {
    const told = await calls.accessCode();
    code = { address: told.address, svg: `data:image/svg+xml,${encodeURIComponent(told.svg)}` };
  }
  async function end(id: string): Promise<void> {
    access = await calls.endSession(id);
  }
  async function set(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    const told = await attempt(
      () => calls.setPassphrase({ passphrase: words }),
      (said) => (trouble = said),
    );
    if (!told) return;
    access = told;
    words = trouble = '';
    toast.show('The passphrase is set. Every device must enter it again.');
  }
  const when = (at: string) =>
    new Date(at).toLocaleString('en-GB', {
      day: 'numeric',
      month: 'short',
      hour: '2-digit',
      minute: '2-digit',
    });
</script>

{#if access}
  <div class="part mt-4.5">
    <h2 class="mb-1.5">On the shop's network</h2>
    {#if access.on_network}
      <p>
        Other devices open <b class="figure">{access.addresses[0]}</b>{#if access.plain}. Plain HTTP: who is
          on this network can read what is sent; a certificate given to <span class="figure"
            >fardo serve --lan</span
          > ends that{/if}.
      </p>
      <button type="button" class="btn mt-2" onclick={() => start(show)}>Show a code to scan</button>
      {#if code}
        <figure class="mt-2">
          <img
            src={code.svg}
            alt="Code that opens the shop once, for five minutes"
            class="h-60 w-60 bg-white"
          />
          <figcaption class="text-soft text-note figure break-all">{code.address}</figcaption>
        </figure>
      {/if}
    {:else}
      <p class="max-w-[720px]">
        The shop is served to this machine only. For a tablet at the bench set a passphrase, then start it
        with
        <span class="figure">fardo serve --lan</span>.
      </p>
    {/if}
    {#if access.sessions.length}
      <ul class="mt-3 max-w-[720px]" aria-label="Devices signed in">
        {#each access.sessions as one (one.id)}
          <li class="border-t-hair flex flex-wrap items-center gap-x-4 gap-y-1 border-t py-1.5">
            <span class="min-w-0 flex-1 truncate">{one.device}</span>
            <span class="text-soft text-note">last seen {when(one.seen_at)}</span>
            {#if one.this_device}<b class="text-note">this device</b>{:else}<button
                type="button"
                class="btn"
                aria-label="Sign out {one.device}"
                onclick={() => start(() => end(one.id))}>Sign out</button
              >{/if}
          </li>
        {/each}
      </ul>
    {/if}
    {#if access.may_change}
      <form class="mt-3 flex flex-wrap items-end gap-3" onsubmit={(event) => start(() => set(event))}>
        <div class="w-80">
          <label class="text-soft text-small mb-0.5 block" for="shop-passphrase"
            >{access.has_passphrase ? 'Another passphrase' : 'Passphrase'}, ten signs or more</label
          >
          <input
            id="shop-passphrase"
            class="field w-full"
            type="password"
            autocomplete="new-password"
            maxlength="200"
            bind:value={words}
            oninput={() => (trouble = '')}
          />
        </div>
        <button type="submit" class="btn" disabled={!words}>Set it</button>
      </form>
      <p class="text-stop text-note min-h-5" role="alert">{trouble}</p>
    {/if}
  </div>
{/if}
