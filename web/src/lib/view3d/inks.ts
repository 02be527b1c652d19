// Colours of the theme for what is drawn on a canvas, and word of when they change.

/** A colour as it now is, whichever of two by the theme, in a form that every drawing library reads. */
export function ink(variable: string): string {
  const probe = document.createElement('i');
  probe.style.color = `var(${variable})`;
  document.body.append(probe);
  const colour = getComputedStyle(probe).color;
  probe.remove();
  return colour;
}

/** Calls whenever the theme changes; gives back what ends it. */
export function onTheme(changed: () => void): () => void {
  const dark = matchMedia('(prefers-color-scheme: dark)');
  const watch = new MutationObserver(changed);
  watch.observe(document.documentElement, { attributeFilter: ['data-theme'] });
  dark.addEventListener('change', changed);
  return () => {
    watch.disconnect();
    dark.removeEventListener('change', changed);
  };
}
