declare const of: unique symbol;

/**
 * A number that identifies one kind of thing. Plain numbers, as they come from a row or a request, may become one; one kind
 * never becomes another, so that the compiler refuses a lot where a place is asked for.
 */
export type Id<Kind extends string> = number & { readonly [of]?: Kind };

export type ItemId = Id<'item'>;
/** Nought stands for goods that are not kept by lot. */
export type LotId = Id<'lot'>;
export type PlaceId = Id<'place'>;
export type PackId = Id<'pack'>;
export type OrderId = Id<'order'>;
/** A line of a sales order, or of a purchase order. */
export type LineId = Id<'line'>;
export type StopId = Id<'stop'>;
export type SiteId = Id<'site'>;
