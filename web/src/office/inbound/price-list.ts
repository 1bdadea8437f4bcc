import { ProblemError, type Dto } from '../../api/client';

/** A price as it is written in the form: what one pack costs when so many are ordered. */
export interface PriceRow {
  sku: string;
  factor: string;
  supplierSku: string;
  /** From how many packs on it holds; 1 is the price of an item, more are its lower prices. */
  from: string;
  price: string;
}

export const emptyPrice: PriceRow = { sku: '', factor: '1', supplierSku: '', from: '1', price: '' };

const PRICE = /^\d{1,10}(\.\d{1,6})?$/;
const WHOLE = /^[1-9]\d{0,6}$/;

interface Listed {
  item: { sku: string; factor: number; supplierSku: string; price: string; breaks: { from: number; price: string }[] };
  /** The row in which its own price stands, and those of its lower prices. */
  row: number;
  breakRows: number[];
}

/** The items that rows come to, lower prices with the item that they are of. Throws with the cells at fault. */
export function listed(rows: readonly PriceRow[]): Listed[] {
  const faults: Record<string, string> = {};
  const found = new Map<string, Listed>();
  rows.forEach((r, row) => {
    const at = (cell: string) => `priceList.${row}.${cell}`;
    const sku = r.sku.trim().toUpperCase();
    if (Object.values(r).every((cell: string, i) => cell.trim() === '' || cell === Object.values(emptyPrice)[i])) return;
    const from = r.from.trim() === '' ? '1' : r.from.trim();
    if (sku === '') faults[at('sku')] = 'Which item?';
    if (!WHOLE.test(r.factor.trim())) faults[at('factor')] = 'A whole number of units, such as 48';
    if (!WHOLE.test(from)) faults[at('from')] = 'A whole number of packs';
    if (!PRICE.test(r.price.trim())) faults[at('price')] = 'A price, such as 19.20';
    const known = found.get(sku);
    const price = r.price.trim();
    if (from === '1') {
      if (known) faults[at('from')] = `${sku} has its price already. From how many packs is this one?`;
      else
        found.set(sku, {
          item: { sku, factor: Number(r.factor), supplierSku: r.supplierSku.trim(), price, breaks: [] },
          row,
          breakRows: [],
        });
    } else if (!known) faults[at('from')] = `First the price of ${sku} from 1 pack on, then its lower ones`;
    else if (known.item.breaks.some((b) => b.from === Number(from))) faults[at('from')] = `There is a price from ${from} packs on already`;
    else {
      known.item.breaks.push({ from: Number(from), price });
      known.breakRows.push(row);
    }
  });
  if (Object.keys(faults).length > 0) throw new ProblemError(400, 'form', 'Look at the price list', faults);
  return [...found.values()];
}

/** What the server has against an item of the list, at the row where that item stands. */
export function atRows(problem: unknown, list: readonly Listed[]): unknown {
  if (!(problem instanceof ProblemError)) return problem;
  const moved = Object.entries(problem.fields).map(([field, says]) => {
    const [, n = '', cell = ''] = /^items\.(\d+)\.(?:breaks\.\d+\.)?(\w+)$/.exec(field) ?? [];
    const row = list[Number(n)]?.row;
    return [n !== '' && row !== undefined ? `priceList.${row}.${cell}` : field === 'items' ? 'priceList' : field, says] as const;
  });
  return new ProblemError(problem.status, problem.code, problem.message, Object.fromEntries(moved));
}

const bare = (price: string) => price.replace(/(\.\d\d)0+$/, '$1').replace(/^(\d+)$/, '$1.00');

/** A supplier's prices as rows. */
export const priceRows = (s: Pick<Dto['SupplierSheetDto'], 'items'>): PriceRow[] =>
  s.items.flatMap((i) => {
    const same = { sku: i.sku, factor: String(i.packs.find((p) => p.id === i.packId)?.factor ?? 1), supplierSku: i.supplierSku };
    return [{ from: 1, price: i.price ?? '0' }, ...(i.breaks ?? [])].map((b) => ({ ...same, from: String(b.from), price: bare(b.price) }));
  });
