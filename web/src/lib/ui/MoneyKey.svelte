<script lang="ts">
  // What the pieces of a money bar stand for.
</script>

<p class="key">
  <span><i class="goes-post"></i>postage</span><span><i class="goes-cover"></i>cover</span><span
    ><i class="goes-box"></i>box, tape</span
  >
  <span><i class="goes-fill"></i>wrap, fill</span><span><i class="goes-time"></i>time</span>
</p>

<style>
  .key {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
    font-size: 13px;
    color: var(--soft);
  }
  i {
    display: inline-block;
    width: 15px;
    height: 10px;
    margin-right: 5px;
  }
</style>
