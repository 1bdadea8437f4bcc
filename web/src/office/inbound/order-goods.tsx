import { micro, moneyText } from '@vectrum/core/money';
import { packName } from '@vectrum/core/quantity';
import { useState } from 'react';
import type { Dto } from '../../api/client';
import { SearchField, type SearchOption } from '../../ui/search-field';

type SupplierItem = Dto['SupplierItemDto'];
/** As many as are read at a glance. */
const MOST = 8;

/**
 * Goods of a supplier's list whose name, SKU or the supplier's own number holds every word; each with the pack that it is
 * listed in and its price. What begins with the text comes first.
 */
export function goodsFound(items: readonly SupplierItem[], text: string, currency: string): SearchOption[] {
  const typed = text.trim().toLowerCase();
  const words = typed.split(/\s+/).filter(Boolean);
  const begins = (i: SupplierItem) => [i.name, i.sku, i.supplierSku].some((said) => said.toLowerCase().startsWith(typed));
  return items
    .filter((i) => {
      const said = `${i.name} ${i.sku} ${i.supplierSku}`.toLowerCase();
      return words.every((w) => said.includes(w));
    })
    .sort((a, b) => Number(begins(b)) - Number(begins(a)) || a.name.localeCompare(b.name))
    .slice(0, MOST)
    .map((i) => ({ value: i.sku, title: i.name, note: noteOf(i, currency) }));
}

function noteOf(item: SupplierItem, currency: string): string {
  const pack = item.packs.find((p) => p.id === item.packId);
  const price = item.price && Number(item.price) > 0 ? moneyText(micro(item.price), currency) : '';
  return [item.sku, item.supplierSku, pack ? packName(pack, 1) : '', price].filter(Boolean).join(', ');
}

/** The goods of a line, found by words, SKU or the supplier's number; a scan anywhere on the form puts them in too. */
export function OrderGoods({
  label,
  sku,
  supplier,
  disabled,
  onTake,
}: {
  label: string;
  sku: string;
  supplier: Dto['SupplierSheetDto'] | undefined;
  disabled: boolean;
  onTake: (sku: string) => void;
}) {
  const [typed, setTyped] = useState<{ text: string; over: string } | null>(null);
  // Goods that a scan has put in meanwhile take the place of what was typed.
  const text = typed?.over === sku ? typed.text : null;
  const items = supplier?.items ?? [];
  const chosen = items.find((i) => i.sku === sku);
  return (
    <SearchField
      label={label}
      value={text ?? chosen?.name ?? sku}
      found={text === null ? [] : goodsFound(items, text, supplier?.currency ?? 'GBP')}
      invalid={text !== null && text.trim() !== '' && goodsFound(items, text, '').length === 0}
      disabled={disabled || !supplier}
      placeholder={supplier ? 'Words, SKU or their number, or scan' : 'Choose a supplier first'}
      onType={(next) => {
        const isEmptied = next.trim() === '' && sku !== '';
        setTyped({ text: next, over: isEmptied ? '' : sku });
        if (isEmptied) onTake('');
      }}
      onTake={({ value }) => {
        setTyped(null);
        onTake(value);
      }}
    />
  );
}
