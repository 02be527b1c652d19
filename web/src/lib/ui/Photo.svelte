<script lang="ts">
  // A photograph kept with the shop, small; a press opens it whole.
  interface Props {
    file: string;
    alt: string;
  }
  let { file, alt }: Props = $props();
</script>

<a href="/api/files/{file}" target="_blank" rel="noopener"
  ><img class="border-hair2 h-16 w-16 border object-cover" src="/api/files/{file}" {alt} /></a
>
