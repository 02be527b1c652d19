"""What does not hold on a screen: runs off the side, is clipped, or lies over other words."""

from __future__ import annotations

from tests.browser.driver import Page

_FAULTS = r"""
scrollTo(0, 0);
const wide = document.documentElement.clientWidth;
const faults = [];
const hidden = (e) =>
  !e.checkVisibility({ opacityProperty: true, visibilityProperty: true }) ||
  e.closest('.sr-only, a[href="#work"], [aria-hidden=true], svg, canvas') !== null;
const scrolls = (e) => {
  for (let up = e.parentElement; up && up !== document.body; up = up.parentElement) {
    const c = getComputedStyle(up);
    if (['auto', 'scroll'].includes(c.overflowX) && up.getBoundingClientRect().right <= wide + 1) return true;
    const shortened = c.overflowX === 'hidden' && c.textOverflow === 'ellipsis';
    if (shortened && up.getBoundingClientRect().right <= wide + 1) return true;
  }
  return false;
};
const classes = (e) => (e.getAttribute('class') || '').split(' ');
const called = (e) => classes(e).filter((c) => c && !/^(s-|svelte)/.test(c)).slice(0, 2);
const says = (e) => (e.textContent || e.value || e.getAttribute('aria-label') || '').trim().replace(/\s+/g, ' ');
const name = (e) => `${e.tagName.toLowerCase()}.${called(e).join('.')} "${says(e).slice(0, 40)}"`;
// 1. What runs off the side.
for (const e of document.querySelectorAll('body *')) {
  if (hidden(e)) continue;
  const r = e.getBoundingClientRect();
  if (r.width < 1 || r.height < 1) continue;
  if ((r.right > wide + 1 || r.left < -1) && !scrolls(e) && !faults.some((f) => f.e.contains(e)))
    faults.push({ e, says: `runs off: ${name(e)} ${Math.round(r.left)} to ${Math.round(r.right)} of ${wide}` });
}
// 2. What is clipped: words that are cut off without a sign, measures wider than their field.
for (const e of document.querySelectorAll('body *')) {
  if (hidden(e)) continue;
  const c = getComputedStyle(e);
  const field = e.tagName === 'INPUT' && e.classList.contains('figure');
  const cut = e.scrollWidth > e.clientWidth + 1 && e.clientWidth > 1;
  if (field && cut) faults.push({ e, says: `clipped: the measure ${e.id || name(e)} ${e.value}` });
  if (e.tagName === 'INPUT' || !['hidden', 'clip'].includes(c.overflowX) || c.textOverflow === 'ellipsis') continue;
  if (cut && e.innerText && e.innerText.trim()) faults.push({ e, says: `clipped: ${name(e)}` });
}
// 3. Words over words.
const words = [];
const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
// What is fixed, or a bar that sticks to the foot, lies over the page on purpose.
const layer = (e) => {
  for (let up = e; up && up !== document.body; up = up.parentElement) {
    const c = getComputedStyle(up);
    if (c.position === 'fixed' || (c.position === 'sticky' && c.bottom !== 'auto')) return up;
  }
  return null;
};
const clip = (e, r) => {
  let [l, t, rr, b] = [r.left, r.top, r.right, r.bottom];
  for (let up = e; up && up !== document.body; up = up.parentElement) {
    const c = getComputedStyle(up);
    if (c.overflowX === 'visible' && c.overflowY === 'visible') continue;
    const o = up.getBoundingClientRect();
    [l, t, rr, b] = [Math.max(l, o.left), Math.max(t, o.top), Math.min(rr, o.right), Math.min(b, o.bottom)];
  }
  return [l, t, rr, b];
};
while (walker.nextNode()) {
  const node = walker.currentNode;
  const e = node.parentElement;
  if (!node.data.trim() || !e || hidden(e) || e.tagName === 'OPTION') continue;
  const range = document.createRange();
  range.selectNodeContents(node);
  for (const r of range.getClientRects()) {
    const [l, t, rr, b] = clip(e, r);
    const seen = rr - l > 3 && b - t > 4;
    if (seen) words.push({ e, l, t, r: rr, b, layer: layer(e), says: node.data.trim().slice(0, 30) });
  }
}
const fields = 'input:not([type=checkbox]):not([type=radio]):not([type=file]), textarea, button';
for (const e of document.querySelectorAll(fields)) {
  if (hidden(e) || layer(e)) continue;
  const r = e.getBoundingClientRect();
  if (r.width < 3 || r.height < 3 || e.classList.contains('sr-only')) continue;
  const [l, t, rr, b] = clip(e, r);
  const which = e.id || e.getAttribute('aria-label') || e.textContent.trim().slice(0, 20);
  if (rr - l > 3 && b - t > 4) words.push({ e, l, t, r: rr, b, layer: null, says: `field ${which}` });
}
words.sort((a, b) => a.t - b.t);
for (let i = 0; i < words.length; i++)
  for (let k = i + 1; k < words.length && words[k].t < words[i].b - 3; k++) {
    const [a, b] = [words[i], words[k]];
    if (a.layer !== b.layer || a.e === b.e || a.e.contains(b.e) || b.e.contains(a.e)) continue;
    const across = Math.min(a.r, b.r) - Math.max(a.l, b.l);
    const down = Math.min(a.b, b.b) - Math.max(a.t, b.t);
    if (across > 3 && down > 4) faults.push({ e: a.e, says: `over each other: "${a.says}" and "${b.says}"` });
  }
return [...new Set(faults.map((f) => f.says))].slice(0, 25);
"""


def does_not_hold(page: Page) -> list[str]:
    """What runs off the side, is clipped or lies over other words on the page as it stands; at most 25 of them."""
    # What watches its own size is laid out again a frame after the window.
    page.driver.execute_async_script(
        "const done = arguments[0]; requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(done)))"
    )
    found: list[str] = page.driver.execute_script(_FAULTS)
    return found
