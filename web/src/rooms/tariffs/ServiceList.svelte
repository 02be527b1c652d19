<script lang="ts">
  // The services of a tariff: where each goes, every charge as a sentence of its bill, and what to look at again.
  import type { TariffRow } from '../../lib/api/client';

  interface Props {
    services: TariffRow['services'];
  }
  let { services }: Props = $props();
</script>

{#each services as service (service.name + service.programme + service.valid)}
  <section class="border-t-hair mt-2.5 border-t pt-2">
    <h3 class="font-title">
      {service.name}
      <small class="text-soft font-plain text-small"
        >{service.programme}{service.valid ? `, prices ${service.valid}` : ''}{service.other_way
          ? ', another way'
          : ''}; zones {service.zones.join(', ')}</small
      >
    </h3>
    <ul class="text-note">
      {#each service.charges as charge, n (n)}
        <li class="py-0.25"><b class="font-medium">{charge.called}</b>: {charge.words}</li>
      {/each}
    </ul>
    {#each service.findings as finding (finding)}<p class="text-stop text-note">
        Warning: {finding}
      </p>{/each}
  </section>
{/each}
