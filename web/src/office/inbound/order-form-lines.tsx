import { moneyText } from '@vectrum/core/money';
import { countOf } from '@vectrum/core/quantity';
import { useRef } from 'react';
import type { FieldArrayWithId, UseFormReturn } from 'react-hook-form';
import type { Dto } from '../../api/client';
import { Glyph } from '../../ui/glyph';
import { Picture } from '../../ui/picture';
import { emptyLine, type FormLine, lineSum, type OrderValues } from './line-sum';
import { OrderGoods } from './order-goods';
import { followList, priceHint } from './order-prices';
import { NumberCell, PictureCell } from '../../ui/table';
import { Select, Input } from '../../ui/input';

/** The lines of an order as they are typed: prices follow the supplier's list, and say what more would bring. */
export function OrderFormLines({
  form,
  fields,
  watched,
  supplier,
  placed,
  onRemove,
}: {
  form: UseFormReturn<OrderValues>;
  fields: readonly FieldArrayWithId<OrderValues, 'lines'>[];
  watched: readonly FormLine[];
  supplier: Dto['SupplierSheetDto'] | undefined;
  /** How many lines are on an order that is placed: their goods stay as they are. */
  placed: number;
  onRemove: (index: number) => void;
}) {
  return (
    <tbody>
      {fields.map((row, i) => (
        <LineRow
          key={row.id}
          form={form}
          i={i}
          line={watched[i] ?? emptyLine}
          supplier={supplier}
          fixed={i < placed}
          only={fields.length === 1}
          onRemove={() => onRemove(i)}
        />
      ))}
    </tbody>
  );
}

function LineRow({
  form,
  i,
  line,
  supplier,
  fixed,
  only,
  onRemove,
}: {
  form: UseFormReturn<OrderValues>;
  i: number;
  line: FormLine;
  supplier: Dto['SupplierSheetDto'] | undefined;
  fixed: boolean;
  only: boolean;
  onRemove: () => void;
}) {
  const items = supplier?.items ?? [];
  const item = items.find((x) => x.sku === line.sku);
  const base = item?.packs.find((p) => p.factor === 1);
  const sum = lineSum(line);
  const hint = priceHint(item, line, supplier?.currency ?? 'GBP');
  const change = (next: Partial<FormLine>, of = item) => form.setValue(`lines.${i}`, followList(of, line, { ...line, ...next }));
  const choose = (sku: string) => {
    const chosen = items.find((x) => x.sku === sku);
    change({ sku, factor: chosen?.packs.find((p) => p.id === chosen.packId)?.factor ?? 1 }, chosen);
  };
  const quantity = useRef<HTMLInputElement>(null);
  const chosen = (sku: string) => {
    choose(sku);
    if (sku !== '') quantity.current?.focus();
  };
  return (
    <tr>
      <NumberCell>{i + 1}</NumberCell>
      <PictureCell>{item && <Picture name={item.picture} size={30} />}</PictureCell>
      <td style={{ minWidth: 180 }}>
        <OrderGoods label={`Goods of line ${i + 1}`} sku={line.sku} supplier={supplier} disabled={fixed} onTake={chosen} />
      </td>
      <td className="num" style={{ width: 76 }}>
        <Input
          ref={quantity}
          className="num"
          inputMode="numeric"
          aria-label={`How many, line ${i + 1}`}
          value={line.packs}
          onChange={(e) => change({ packs: e.target.value.trim() })}
          aria-invalid={line.packs !== '' && !sum}
        />
      </td>
      <td style={{ width: 138 }}>
        <Select
          aria-label={`Pack of line ${i + 1}`}
          value={line.factor}
          disabled={fixed}
          onChange={(e) => change({ factor: Number(e.target.value) })}
        >
          {(item?.packs ?? []).map((p) => (
            <option key={p.id} value={p.factor}>
              {p.plural} {p.factor > 1 ? `of ${p.factor}` : ''}
            </option>
          ))}
        </Select>
      </td>
      <td className="num" style={{ width: 150 }}>
        <Input className="num" inputMode="decimal" aria-label={`Price, line ${i + 1}`} {...form.register(`lines.${i}.price`)} />
        {hint && <span className="note">{hint}</span>}
      </td>
      <td style={{ width: 134 }}>
        <Input type="date" aria-label={`Day of line ${i + 1}`} {...form.register(`lines.${i}.expectedOn`)} />
      </td>
      <td className="num">
        {sum && base && (
          <>
            <b>{countOf(sum.units, base)}</b>
            <span className="note">at {sum.each} each</span>
          </>
        )}
      </td>
      <td className="num">{sum ? moneyText(sum.goods, supplier?.currency) : ''}</td>
      <td>
        {!fixed && (
          <button type="button" aria-label={`Take line ${i + 1} out`} onClick={onRemove} disabled={only}>
            <Glyph name="shut" />
          </button>
        )}
      </td>
    </tr>
  );
}
