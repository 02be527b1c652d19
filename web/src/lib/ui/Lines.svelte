<script lang="ts">
  // Several lines, typed or pasted from a spreadsheet, with their label.
  interface Props {
    id: string;
    label: string;
    value: string;
    rows: number;
    placeholder: string;
    oninput?: () => void;
  }
  let { id, label, value = $bindable(), rows, placeholder, oninput = undefined }: Props = $props();
</script>

<div>
  <label class="text-soft text-small mb-0.5 block" for={id}>{label}</label>
  <textarea
    {id}
    class="field figure h-auto w-full py-1.5"
    {rows}
    spellcheck="false"
    {placeholder}
    bind:value
    {oninput}></textarea>
</div>
