/** Goods that should have another pick face, and what stands there now. */
export class SlotMoveDto {
  sku: string;
  item: string;
  picture: string | null;
  from: string;
  to: string;
  /** Units that lie at its face and are to be carried over. */
  units: number;
  /** How many orders a week want it. */
  ordersAWeek: number;
  /** What has that face and changes with it. */
  changeSku: string | null;
  changeItem: string | null;
  changeUnits: number;
  /** Metres of walking that it saves a week, once those before it are done. */
  metresAWeek: number;
}
/** Goods that lie at a face which is another's, and have one of their own. */
export class OffHomeDto {
  sku: string;
  item: string;
  units: number;
  from: string;
  to: string;
}
/** Where goods should stand, by the orders of the last weeks. */
export class SlottingDto {
  orders: number;
  weeks: number;
  /** Goods with a pick face on the plan. */
  goods: number;
  metresAWeek: number;
  metresAfter: number;
  moves: SlotMoveDto[];
  offHome: OffHomeDto[];
}
