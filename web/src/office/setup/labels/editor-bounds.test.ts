import type { LabelElement } from '@vectrum/core/labels';
import fc from 'fast-check';
import { newDesign, newElement, NEW_ROLL, resized, snapped } from './editor-model';

const mm = (most: number) => fc.integer({ min: -most * 100, max: most * 100 }).map((n) => n / 100);
const size = fc.integer({ min: 1, max: 120 });
const label = fc.record({ widthMm: size, heightMm: size });
const kind = fc.constantFrom<LabelElement['kind']>('text', 'barcode', 'arrow', 'box');

/** A label with two elements that came onto it through the editor. */
const drawn = fc.record({ media: label, kinds: fc.tuple(kind, kind) }).map(({ media, kinds }) => {
  const design = { ...newDesign('item'), media: { ...NEW_ROLL, ...media } };
  return { ...design, elements: kinds.map((k, i) => newElement(design, k, `e${i}`, 'sku')) };
});

const onLabel = (e: Pick<LabelElement, 'xMm' | 'yMm' | 'wMm' | 'hMm'>, m: { widthMm: number; heightMm: number }) =>
  e.xMm >= 0 && e.yMm >= 0 && e.xMm + e.wMm <= m.widthMm + 0.005 && e.yMm + e.hMm <= m.heightMm + 0.005;

describe('whatever is done in the label editor', () => {
  it('an element dragged anywhere stays on the label, and where it was dropped or near it', () => {
    fc.assert(
      fc.property(drawn, mm(200), mm(200), (design, x, y) => {
        const e = design.elements[0]!;
        const at = snapped(design, e.id, x, y);
        expect(onLabel({ ...e, ...at }, design.media)).toBe(true);
        const free = x > 2 && y > 2 && x + e.wMm < design.media.widthMm - 2 && y + e.hMm < design.media.heightMm - 2;
        if (free) {
          expect(Math.abs(at.xMm - x)).toBeLessThanOrEqual(1.2);
          expect(Math.abs(at.yMm - y)).toBeLessThanOrEqual(1.2);
        }
      }),
    );
  });

  it('an element dropped where it lies stays there', () => {
    fc.assert(
      fc.property(drawn, mm(60), mm(60), (design, x, y) => {
        const e = design.elements[1]!;
        const once = snapped(design, e.id, x, y);
        const again = snapped(design, e.id, once.xMm, once.yMm);
        expect(Math.abs(again.xMm - once.xMm)).toBeLessThanOrEqual(1.2);
        expect(onLabel({ ...e, ...again }, design.media)).toBe(true);
      }),
    );
  });

  it('a guide is shown only where an edge or the middle really lies on it', () => {
    fc.assert(
      fc.property(drawn, mm(120), mm(120), (design, x, y) => {
        const e = design.elements[0]!;
        const at = snapped(design, e.id, x, y);
        const touches = (from: number, length: number, guide: number | null) =>
          guide === null || [from, from + length / 2, from + length].some((edge) => Math.abs(edge - guide) < 0.011);
        expect(touches(at.xMm, e.wMm, at.guideX)).toBe(true);
        expect(touches(at.yMm, e.hMm, at.guideY)).toBe(true);
      }),
    );
  });

  it('an element made larger never leaves the label, nor vanishes', () => {
    fc.assert(
      fc.property(drawn, mm(300), mm(300), (design, w, h) => {
        const e = resized(design, design.elements[0]!, w, h);
        expect(e.xMm + e.wMm).toBeLessThanOrEqual(design.media.widthMm + 0.005);
        expect(e.yMm + e.hMm).toBeLessThanOrEqual(design.media.heightMm + 0.005);
        expect(Math.min(e.wMm, e.hMm)).toBeGreaterThan(0);
      }),
      { numRuns: 500 },
    );
  });

  it('a new element is of a size, and on the label, however small that is', () => {
    fc.assert(
      fc.property(drawn, (design) => {
        for (const e of design.elements) {
          expect(Math.min(e.wMm, e.hMm)).toBeGreaterThan(0);
          expect(onLabel(e, design.media)).toBe(true);
        }
      }),
      { numRuns: 500 },
    );
  });

  it('what is not there is left where it is', () => {
    expect(snapped(newDesign('item'), 'gone', 3.3, 4.4)).toEqual({ xMm: 3.3, yMm: 4.4, guideX: null, guideY: null });
  });
});
