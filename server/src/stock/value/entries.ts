import type { Account } from '@vectrum/core/costing';
import { decimalText, type Micro } from '@vectrum/core/money';
import { insert, type NewRow, type Tx } from '../../platform/index.js';

/** What an entry is about; all of it may be left out but the document. */
type About = Pick<NewRow<'value_entry'>, 'document' | 'item_id' | 'movement_id' | 'layer_id' | 'bill_id' | 'invoice_id' | 'payment_id'>;

/** Writes one entry of the journal; an amount below nought goes the other way, nought is no entry. */
export async function enterValue(tx: Tx, about: About, debit: Account, credit: Account, amount: Micro): Promise<void> {
  if (amount === 0n) return;
  const [to, from, size] = amount > 0n ? [debit, credit, amount] : [credit, debit, -amount];
  await insert(tx, 'value_entry', { ...about, debit: to, credit: from, amount: decimalText(size) });
}

/** Marks all entries before an instant (SQL made here) that went out with no export yet; returns how many. Nothing else of an entry ever changes. */
export async function markExported(tx: Tx, exportId: number, before: string): Promise<number> {
  const done = await tx.query<{ affectedRows: number }>(`UPDATE value_entry SET export_id = ? WHERE export_id IS NULL AND at < ${before}`, [
    exportId,
  ]);
  return done.affectedRows;
}
