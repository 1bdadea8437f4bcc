import { type FilledBox, rankCartons } from '@vectrum/core/cartons';
import type { PackParcel } from '@vectrum/core/scan';
import type { Dto } from '../../api/client';
import { useBoxPlan } from './use-box-plan';

export interface BoxOffer {
  carton: Dto['CartonDto'];
  /** How full the goods make it, in per cent; over 100 where their room alone is more. */
  fill: number;
  proposed: boolean;
  /** Whether all goods lie in it; null while that is not known. */
  holds: boolean | null;
}
export interface ParcelBox {
  offers: BoxOffer[];
  chosen: BoxOffer | undefined;
  /** How goods lie in the chosen box; null where they could not be laid out. */
  laid: FilledBox | null;
  /** The boxes that all goods go into, by code; more than one where one does not do. */
  together: string[];
}

/** Boxes for what is to go into the parcels that are open, and the one that is chosen for the parcel in use. */
export function useParcelBox({
  task,
  parcels,
  number,
  wanted,
}: {
  task: Dto['PackTaskDto'];
  parcels: readonly PackParcel[];
  /** The parcel in use. */
  number: number;
  /** The box that a person chose; empty where none did. */
  wanted: string;
}): ParcelBox {
  const { cartons } = task;
  const open = parcels.filter((p) => p.open || p.number === number).map((p) => p.number);
  const closed = parcels.filter((p) => !p.open).flatMap((p) => p.contents);
  const goods = task.lines.map((l) => ({
    ...l,
    units: l.picked - closed.reduce((sum, c) => sum + (c.line === l.line ? c.units : 0), 0),
  }));
  const plan = useBoxPlan({
    cartons: cartons.map(({ cost: _, ...c }) => c),
    goods: goods.map(({ units, unitG, sizeMm, keepUpright, fragile }) => ({
      units,
      unitG,
      sizeMm: sizeOf(sizeMm),
      keepUpright,
      fragile,
    })),
  });
  const ranked = rankCartons(cartons, goods);
  const planned = plan?.best.boxes[Math.max(0, open.indexOf(number))] ?? null;
  const proposed = planned ? cartons[planned.box] : ranked.find((r) => r.proposed)?.carton;
  const offers = ranked.map(({ carton, fill }): BoxOffer => {
    const index = cartons.indexOf(carton);
    return { carton, fill, proposed: carton === proposed, holds: plan === null ? null : (plan.alone[index] ?? null) !== null };
  });
  const chosen = offers.find((o) => (wanted === '' ? o.proposed : o.carton.code === wanted));
  const index = chosen ? cartons.indexOf(chosen.carton) : -1;
  return {
    offers,
    chosen,
    laid: planned?.box === index ? planned : (plan?.alone[index] ?? null),
    together: plan?.best.boxes.map((b) => cartons[b.box]?.code ?? '') ?? [],
  };
}

const sizeOf = (sides: readonly number[] | null) => {
  const [l, w, h] = sides ?? [];
  return l && w && h ? ([l, w, h] as const) : null;
};
