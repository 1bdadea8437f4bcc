import type { LabelDesign, LabelElement } from '@vectrum/core/labels';
import { newDesign, newElement, NEW_ROLL, resized, snapped } from './editor-model';

const text = (id: string, xMm: number, yMm: number): LabelElement => ({
  id,
  xMm,
  yMm,
  wMm: 10,
  hMm: 5,
  kind: 'text',
  text: 'x',
  align: 'left',
  bold: false,
  mono: false,
});
const design: LabelDesign = {
  ...newDesign('item'),
  media: { ...NEW_ROLL, widthMm: 60, heightMm: 30 },
  elements: [text('a', 3, 4), text('b', 30, 20)],
};

describe('dragging on a label', () => {
  it('keeps to half millimetres away from everything', () => {
    expect(snapped(design, 'a', 15.3, 8.1)).toEqual({ xMm: 15.5, yMm: 8, guideX: null, guideY: null });
  });
  it('keeps to the edges of a neighbour, to the middle and to the edges of the label', () => {
    expect(snapped(design, 'a', 29.3, 11.1)).toMatchObject({ xMm: 30, guideX: 30 });
    expect(snapped(design, 'a', 24.6, 12.2)).toMatchObject({ xMm: 25, guideX: 30, yMm: 12.5, guideY: 15 });
    expect(snapped(design, 'a', 0.9, 24.4)).toMatchObject({ xMm: 0, guideX: 0, yMm: 25 });
  });
  it('never leaves the label', () => {
    expect(snapped(design, 'a', -20, 99)).toMatchObject({ xMm: 0, yMm: 25 });
  });
  it('makes larger up to the edge, and never smaller than a millimetre', () => {
    expect(resized(design, text('a', 55, 4), 40, 0)).toMatchObject({ wMm: 5, hMm: 1 });
  });
  it('puts new elements onto the label, whatever its size', () => {
    const tiny: LabelDesign = { ...design, media: { ...design.media, widthMm: 12, heightMm: 10 }, elements: [] };
    for (const kind of ['text', 'barcode', 'arrow', 'box'] as const) {
      const e = newElement(tiny, kind, 'n', 'sku');
      expect(e.xMm + e.wMm).toBeLessThanOrEqual(12);
      expect(e.yMm + e.hMm).toBeLessThanOrEqual(10);
    }
  });
});
