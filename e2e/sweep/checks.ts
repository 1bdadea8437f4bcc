import { AxeBuilder } from '@axe-core/playwright';
import type { Page, Request } from '@playwright/test';

/** The smallest side of a target: WCAG 2.2 in the office and at the table, gloves on the floor. */
const LEAST_PX = { office: 24, floor: 44 } as const;
export type Face = keyof typeof LEAST_PX;

const RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];

/**
 * What is wrong with how a page is laid out, in words: sideways overflow, controls that are too small or stick out of what
 * holds them, text that is cut and cannot be read, parts of a sheet without a width.
 */
export async function layoutFaults(page: Page, face: Face): Promise<string[]> {
  return page.evaluate((least) => {
    const found = new Set<string>();
    const name = (el: Element) =>
      `${el.tagName.toLowerCase()} "${(el.getAttribute('aria-label') ?? el.textContent ?? '').trim().replace(/\s+/g, ' ').slice(0, 40)}"`;
    const root = document.documentElement;
    if (root.scrollWidth > window.innerWidth + 1) {
      const widest = [...document.body.querySelectorAll('*')].find(
        (el) => el.getBoundingClientRect().right > window.innerWidth + 1 && el.children.length === 0,
      );
      found.add(`the page is ${root.scrollWidth - window.innerWidth} px wider than the screen${widest ? `: ${name(widest)}` : ''}`);
    }
    const isShown = (el: Element) => {
      const style = getComputedStyle(el);
      const rect = el.getBoundingClientRect();
      return (
        style.visibility === 'visible' &&
        style.display !== 'none' &&
        rect.width > 0 &&
        rect.height > 0 &&
        !el.closest('[aria-hidden="true"], .sr, .sr-only')
      );
    };
    /** A link within a sentence is as high as its line. */
    const isInSentence = (el: Element) =>
      el.tagName === 'A' &&
      [...(el.parentElement?.childNodes ?? [])].some((n) => n.nodeType === Node.TEXT_NODE && (n.textContent ?? '').trim().length > 3);
    for (const el of document.querySelectorAll(
      'a[href], button, input, select, textarea, [role="button"], [role="switch"], [role="tab"], [role="option"]',
    )) {
      const isBox = el.matches('input[type="checkbox"], input[type="radio"]');
      const target = isBox ? (el.closest('label') ?? el) : el;
      if (!isShown(target)) continue;
      const rect = target.getBoundingClientRect();
      // Half a pixel is how browsers round, not how a finger misses.
      if (!isInSentence(el) && (rect.width < least - 0.5 || rect.height < least - 0.5))
        found.add(`${name(target)} is ${Math.round(rect.width)} × ${Math.round(rect.height)} px, less than ${least}`);
      for (let box = target.parentElement; box; box = box.parentElement) {
        const style = getComputedStyle(box);
        if (style.overflowX === 'visible') continue;
        const outer = box.getBoundingClientRect();
        // What scrolls can be reached; what is cut off cannot.
        if (style.overflowX === 'auto' || style.overflowX === 'scroll') break;
        if (rect.left < outer.left - 1.5 || rect.right > outer.right + 1.5) {
          found.add(`${name(target)} sticks out of ${box.className.toString().split(' ')[0] || box.tagName.toLowerCase()}`);
          break;
        }
      }
    }
    for (const el of document.body.querySelectorAll<HTMLElement>('*')) {
      const hasText = [...el.childNodes].some((n) => n.nodeType === Node.TEXT_NODE && (n.textContent ?? '').trim() !== '');
      if (!hasText || !isShown(el) || el.matches('option, select, textarea, script, style')) continue;
      const style = getComputedStyle(el);
      const cut =
        style.overflowX !== 'visible' && style.overflowX !== 'auto' && style.overflowX !== 'scroll' && el.scrollWidth > el.clientWidth + 1;
      if (!cut) continue;
      // Whoever points at cut text is told the whole of it.
      el.dispatchEvent(new PointerEvent('pointerover', { bubbles: true }));
      if (!el.closest('[title]')) found.add(`${name(el)} is cut, with no way to read it`);
    }
    for (const sheet of document.querySelectorAll('aside.sheet')) {
      const width = sheet.getBoundingClientRect().width;
      if (width < 260) found.add(`the sheet ${name(sheet)} is ${Math.round(width)} px wide`);
      for (const el of sheet.querySelectorAll('form, section, table, input:not([type="checkbox"]):not([type="radio"]), select, textarea'))
        if (
          getComputedStyle(el).display !== 'none' &&
          !el.closest('.sr, .sr-only') &&
          !el.matches('.sr, .sr-only') &&
          el.getBoundingClientRect().width < 20
        )
          found.add(`${name(el)} on the sheet has no width`);
    }
    return [...found];
  }, LEAST_PX[face]);
}

/** What an automatic check of accessibility finds, a line for each kind. */
export async function axeFaults(page: Page): Promise<string[]> {
  // In the page itself, and without a word on what is right: either takes as long as the check.
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode(true)
    .options({ resultTypes: ['violations'] })
    .withTags(RULES)
    .analyze();
  return violations.map(
    (v) =>
      `${v.id}: ${v.nodes.length} × ${v.nodes[0]?.html.slice(0, 140) ?? ''} (${v.nodes[0]?.failureSummary?.split('\n')[1]?.trim() ?? v.help})`,
  );
}

/**
 * Hears what a page answers, logs and throws. An answer is judged by the address the page had when it asked: a list that
 * a colleague's act has read again may be answered after the page was led elsewhere.
 */
export function listen(page: Page, allowedAt: (path: string) => readonly number[]): { take: () => string[] } {
  let heard: string[] = [];
  const askedAt = new WeakMap<Request, string>();
  page.on('console', (m) => {
    // The browser repeats in the console what an answer has said already.
    if (m.type() === 'error' && !m.text().startsWith('Failed to load resource')) heard.push(`console: ${m.text().slice(0, 200)}`);
  });
  page.on('pageerror', (e) => heard.push(`page error: ${e.message.slice(0, 200)}`));
  page.on('request', (r) => askedAt.set(r, page.url()));
  page.on('response', (r) => {
    if (r.status() < 400) return;
    const from = askedAt.get(r.request()) ?? page.url();
    if (from.startsWith('http') && allowedAt(new URL(from).pathname).includes(r.status())) return;
    heard.push(`${r.request().method()} ${new URL(r.url()).pathname} answered ${r.status()}`);
  });
  page.on('requestfailed', (r) => {
    const why = r.failure()?.errorText ?? '';
    // A page that is left stops listening.
    if (!why.includes('ERR_ABORTED')) heard.push(`${r.method()} ${new URL(r.url()).pathname} failed: ${why}`);
  });
  return {
    take: () => {
      const all = heard;
      heard = [];
      return all;
    },
  };
}
