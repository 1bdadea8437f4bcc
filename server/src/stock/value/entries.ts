import type { Account } from '@vectrum/core/costing';
import { decimalText, type Micro } from '@vectrum/core/money';
import { insert, type NewRow, type Tx } from '../../platform/index.js';

/** What an entry is about; all of it may be left out but the document. */
type About = Pick<NewRow<'value_entry'>, 'document' | 'item_id' | 'movement_id' | 'layer_id' | 'bill_id'>;

/** Writes one entry of the value of stock; an amount below nought goes the other way, nought is no entry. */
export async function enterValue(tx: Tx, about: About, debit: Account, credit: Account, amount: Micro): Promise<void> {
  if (amount === 0n) return;
  const [to, from, size] = amount > 0n ? [debit, credit, amount] : [credit, debit, -amount];
  await insert(tx, 'value_entry', { ...about, debit: to, credit: from, amount: decimalText(size) });
}
