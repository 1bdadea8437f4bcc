import type { LabelDesign, LabelElement, LabelSubject, Media } from '@vectrum/core/labels';

/** What is placed keeps to half millimetres and to the edges and middles of the label and of its neighbours. */
const GRID_MM = 0.5;
const NEAR_MM = 1.2;

export const NEW_ROLL: Media = {
  kind: 'roll',
  widthMm: 57,
  heightMm: 32,
  columns: 1,
  rows: 1,
  pageWidthMm: 210,
  pageHeightMm: 297,
  leftMm: 5,
  topMm: 10,
  gapXMm: 0,
  gapYMm: 0,
};

export function newDesign(subject: LabelSubject): LabelDesign {
  return { name: '', subject, media: NEW_ROLL, elements: [] };
}

const grid = (mm: number) => Math.round(mm / GRID_MM) * GRID_MM;

/** Where an element that was dragged to (x, y) comes to lie: on the nearest guide, otherwise on the grid; always on the label. */
export function snapped(
  design: LabelDesign,
  id: string,
  x: number,
  y: number,
): { xMm: number; yMm: number; guideX: number | null; guideY: number | null } {
  const e = design.elements.find((el) => el.id === id);
  if (!e) return { xMm: x, yMm: y, guideX: null, guideY: null };
  const others = design.elements.filter((el) => el.id !== id);
  const guidesX = [0, design.media.widthMm / 2, design.media.widthMm, ...others.flatMap((o) => [o.xMm, o.xMm + o.wMm])];
  const guidesY = [0, design.media.heightMm / 2, design.media.heightMm, ...others.flatMap((o) => [o.yMm, o.yMm + o.hMm])];
  const along = (at: number, size: number, most: number, guides: readonly number[]) => {
    let best = { at: grid(at), guide: null as number | null, off: NEAR_MM };
    for (const guide of guides) {
      for (const edge of [0, size / 2, size]) {
        const off = Math.abs(at + edge - guide);
        if (off < best.off) best = { at: guide - edge, guide, off };
      }
    }
    const inside = Math.min(Math.max(0, best.at), Math.max(0, most - size));
    return { at: Math.round(inside * 100) / 100, guide: inside === best.at ? best.guide : null };
  };
  const across = along(x, e.wMm, design.media.widthMm, guidesX);
  const down = along(y, e.hMm, design.media.heightMm, guidesY);
  return { xMm: across.at, yMm: down.at, guideX: across.guide, guideY: down.guide };
}

/** An element made so large, on the grid, at least a millimetre and no further than the edge. */
export function resized(design: LabelDesign, e: LabelElement, wMm: number, hMm: number): LabelElement {
  const within = (mm: number, most: number) => Math.min(Math.max(1, grid(mm)), Math.round(most * 100) / 100);
  return { ...e, wMm: within(wMm, design.media.widthMm - e.xMm), hMm: within(hMm, design.media.heightMm - e.yMm) };
}

const HALF = 0.5;
/** A new element in the middle of the label, asking for a field that the subject has. */
export function newElement(design: LabelDesign, kind: LabelElement['kind'], id: string, field: string): LabelElement {
  const { widthMm, heightMm } = design.media;
  const box = (w: number, h: number) => {
    const [wMm, hMm] = [Math.min(Math.max(1, w), widthMm), Math.min(Math.max(1, h), heightMm)];
    return { id, wMm, hMm, xMm: grid((widthMm - wMm) * HALF), yMm: grid((heightMm - hMm) * HALF) };
  };
  switch (kind) {
    case 'text':
      return { ...box(widthMm * HALF, 6), kind, text: `{${field}}`, align: 'left', bold: false, mono: false };
    case 'barcode':
      return { ...box(widthMm * 0.8, heightMm * 0.4), kind, value: `{${field}}`, symbology: 'code-128', withText: true };
    case 'arrow':
      return { ...box(10, 14), kind, direction: 'by-level' };
    case 'box':
      return { ...box(widthMm - 2, heightMm - 2), kind };
  }
}
