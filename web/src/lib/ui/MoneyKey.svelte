<script lang="ts">
  // What the pieces of a money bar stand for.
</script>

<p class="key text-soft text-small flex flex-wrap gap-x-3.5 gap-y-0.5">
  <span><i class="goes-post mr-1.25 inline-block h-2.5 w-3.75"></i>postage</span><span
    ><i class="goes-cover mr-1.25 inline-block h-2.5 w-3.75"></i>cover</span
  ><span><i class="goes-box mr-1.25 inline-block h-2.5 w-3.75"></i>box, tape</span>
  <span><i class="goes-fill mr-1.25 inline-block h-2.5 w-3.75"></i>wrap, fill</span><span
    ><i class="goes-time mr-1.25 inline-block h-2.5 w-3.75"></i>time</span
  >
</p>
