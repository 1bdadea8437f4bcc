import type { LotId, PlaceId } from '../ids/index.js';

/** What of a delivery was not judged yet, by lot. */
export interface Unjudged {
  inspection: string;
  lotId: LotId;
  units: number;
}
/** Where goods to be looked at stand. */
export interface StandsAt {
  placeId: PlaceId;
  lotId: LotId;
  units: number;
}

/**
 * Says which goods of which delivery stand where: units of one item and lot are alike, so that the oldest delivery is taken
 * to stand in the first place. What is nowhere to be found is left out. O(deliveries × places).
 */
export function whereTheyStand(unjudged: readonly Unjudged[], stands: readonly StandsAt[]): (Unjudged & { placeId: PlaceId })[] {
  const left = stands.map((s) => ({ ...s }));
  return unjudged.flatMap((goods) => {
    let wanted = goods.units;
    return left.flatMap((place) => {
      const units = place.lotId === goods.lotId ? Math.min(wanted, place.units) : 0;
      if (units === 0) return [];
      wanted -= units;
      place.units -= units;
      return [{ ...goods, units, placeId: place.placeId }];
    });
  });
}
