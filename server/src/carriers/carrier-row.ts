/** A carrier as it is spoken to, with its lane at the site that speaks. */
export interface CarrierRow {
  id: number;
  code: string;
  name: string;
  /** None where it has no system of its own. */
  base_url: string | null;
  api_key: string | null;
  lane_place_id: number;
}

/** A parcel as a carrier is told of it. */
export interface Shipment {
  parcel: string;
  weightG: number;
  /** Length, width and height of its box, in millimetres; null where it has none of ours. */
  sizeMm: readonly [number, number, number] | null;
  to: { name: string; line: string; city: string; postcode: string; country: string };
}

/** A label that is wanted. The reference names this one wish: asked for twice, it is bought once. */
export interface LabelWish extends Shipment {
  service: string;
  reference: string;
}

export interface Label {
  tracking: string;
  price: string;
  pdf: Buffer;
  /** The carrier's own number of a booked collection; null where it books none. */
  booking: string | null;
}

/** What a driver has taken, for the carrier. */
export interface Manifest {
  reference: string;
  at: Date;
  driver: string | null;
  parcels: { parcel: string; tracking: string; weightG: number }[];
}
