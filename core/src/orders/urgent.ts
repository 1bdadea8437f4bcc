/** What says how soon an order is wanted. `priority` above nought goes before what is usual; speeds are those of the order form. */
export interface Wanted {
  priority: number;
  speed: string;
}

/** Whether an order goes before others, and is announced to whoever can move it. */
export const isUrgent = ({ priority, speed }: Wanted): boolean => priority > 0 || speed === 'express';
