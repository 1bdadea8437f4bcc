/** Whether an element shows less than it says. */
const isCut = (el: HTMLElement): boolean => el.scrollWidth > el.clientWidth + 1 && getComputedStyle(el).overflowX !== 'visible';

/**
 * Whoever points at text that is cut, or comes to it with the keyboard, is told the whole of it. Returns how to stop.
 */
export function tellCutText(root: Document): () => void {
  const tell = (e: Event) => {
    for (let el = e.target instanceof HTMLElement ? e.target : null; el && el !== root.body; el = el.parentElement) {
      if (el.hasAttribute('title') || !isCut(el) || el.matches('input, select, textarea')) continue;
      el.title = (el.textContent ?? '').replace(/\s+/g, ' ').trim();
    }
  };
  root.addEventListener('pointerover', tell);
  root.addEventListener('focusin', tell);
  return () => {
    root.removeEventListener('pointerover', tell);
    root.removeEventListener('focusin', tell);
  };
}
