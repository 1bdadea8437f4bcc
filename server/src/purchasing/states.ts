/** What an order to a supplier goes through. */
export const PO_STATES = ['draft', 'placed', 'part-received', 'received', 'closed', 'cancelled'] as const;
export const ORDER_ANSWERS = ['', 'acknowledged', 'confirmed', 'to-settle', 'queried', 'refused'] as const;
export type OrderAnswer = (typeof ORDER_ANSWERS)[number];
export type PurchaseOrderState = (typeof PO_STATES)[number];
