<script lang="ts">
  // A bale, tied twice across and once along.
</script>

<svg width="26" height="26" viewBox="0 0 26 26" aria-hidden="true">
  <path d="M2 9 6 4h14l4 5v13H2Z" fill="var(--board)" />
  <path
    d="M2 9h22M8.6 4 7.4 22M17.4 4l1.2 18M2 15.5h22"
    stroke="var(--twine)"
    stroke-width="2.2"
    fill="none"
  />
</svg>
