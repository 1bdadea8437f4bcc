import { type SlotAdvice, slotAdvice } from '@vectrum/core/slotting';
import { floorOf, metresThrough, type PlanPoint, type Segment } from '@vectrum/core/walk';

/** What is to be arranged at a site: faces by where they are, goods by the face that each has, orders by their goods. */
export interface SlotsAsked {
  segments: readonly Segment[];
  table: PlanPoint;
  faces: readonly PlanPoint[];
  faceOf: readonly number[];
  orders: readonly (readonly number[])[];
  weeks: number;
  /** Of each of the goods: the faces that it fits at. */
  fits: readonly (readonly number[])[];
}

/** Which goods should change places, by the walks of the orders that were. It runs in a thread. */
export function slotsOf({ segments, table, faces, fits, ...asked }: SlotsAsked): SlotAdvice {
  const may = fits.map((own) => new Set(own));
  return slotAdvice({
    ...asked,
    faces: faces.length,
    fits: (goods, face) => may[goods]?.has(face) ?? false,
    metres: metresThrough(floorOf([...segments]), faces, table, table),
  });
}
