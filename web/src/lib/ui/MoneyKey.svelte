<script lang="ts">
  // What the pieces of a money bar stand for.
</script>

<p class="key">
  <span><i class="post"></i>postage</span><span><i class="cover"></i>cover</span><span
    ><i class="box"></i>box, tape</span
  >
  <span><i class="fill"></i>fill</span><span><i class="hatch"></i>time</span>
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
  .post {
    background: var(--ink);
  }
  .cover {
    background: repeating-linear-gradient(90deg, var(--ink) 0 1.5px, transparent 1.5px 4px);
  }
  .box {
    background: var(--board);
  }
  .fill {
    background: var(--board-pale);
    outline: 1px solid var(--board);
    outline-offset: -1px;
  }
</style>
