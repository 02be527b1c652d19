<script lang="ts">
  // A measure set by sliding: arrow keys, Home and End move it.
  import { Slider } from 'bits-ui';

  interface Props {
    id: string;
    label: string;
    value: number;
    most: number;
    step?: number;
    change?: (value: number) => void;
    /** How wide it is. */
    place?: string;
  }
  let {
    id,
    label,
    value = $bindable(),
    most,
    step = 1,
    change = undefined,
    place = 'w-42.5',
  }: Props = $props();

  function moved(to: number): void {
    value = to;
    change?.(to);
  }
</script>

<Slider.Root
  type="single"
  class="relative flex h-9 touch-none items-center select-none {place}"
  min={0}
  max={most}
  {step}
  bind:value={() => value, moved}
>
  <span class="bg-edge relative h-1.5 w-full grow"><Slider.Range class="bg-twine absolute h-full" /></span>
  <Slider.Thumb index={0} {id} class="bg-sheet border-twine block h-5.5 w-3.5 border-2" aria-label={label} />
</Slider.Root>
