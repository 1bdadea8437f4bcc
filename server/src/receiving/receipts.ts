import type { ReceiveAs, ReceiveCommand } from '@vectrum/core/scan';
import type { Condition } from '@vectrum/core/ledger';
import { insert, type Tx } from '../platform/index.js';

/** What comes in as one movement. */
export interface Taken {
  lineId: number | null;
  itemId: number;
  lotId: number;
  units: number;
  as: ReceiveAs;
  condition: Condition;
  reason: string | null;
}

export const conditionOf = (command: Pick<ReceiveCommand, 'as' | 'condition'>): Condition =>
  command.as === 'apart' ? 'apart' : command.condition;

/** Keeps how goods were taken in, beside the movement that brought them. Returns its number. */
export function writeReceipt(tx: Tx, arrivalId: number, personId: number, taken: Taken, movementId: number): Promise<number> {
  return insert(tx, 'receipt', {
    arrival_id: arrivalId,
    order_line_id: taken.lineId,
    item_id: taken.itemId,
    lot_id: taken.lotId,
    units: taken.units,
    taken_as: taken.as,
    stock_condition: taken.condition,
    reason: taken.reason,
    movement_id: movementId,
    person_id: personId,
  });
}
