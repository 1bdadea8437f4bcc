import { moneyText } from '@vectrum/core/money';
import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { type FieldArrayWithId, useFormContext, useWatch } from 'react-hook-form';
import { api, ask, type Dto } from '../../../api/client';
import { key } from '../../../api/keys';
import { dayWord, whole } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';
import { Input, Select } from '../../../ui/input';
import { Picture } from '../../../ui/picture';
import { SearchField } from '../../../ui/search-field';
import { NumberCell, PictureCell } from '../../../ui/table';
import { emptyKeyed, type KeyedLine, type KeyedValues, lineSum, priceFor } from './keyed-values';

type Facts = Dto['GoodsFactsDto'];

interface Asked {
  siteId: string;
  account: string;
  channel: string;
}

/** The lines of an order as they are keyed, with what is free of each here and elsewhere, and what it costs this customer. */
export function KeyedLines({
  fields,
  asked,
  fault,
  onRemove,
}: {
  fields: readonly FieldArrayWithId<KeyedValues, 'lines'>[];
  asked: Asked;
  fault: (field: string) => string | undefined;
  onRemove: (index: number) => void;
}) {
  return (
    <tbody>
      {fields.map((row, i) => (
        <LineRow key={row.id} i={i} asked={asked} fault={fault} only={fields.length === 1} onRemove={() => onRemove(i)} />
      ))}
    </tbody>
  );
}

function LineRow({
  i,
  asked,
  fault,
  only,
  onRemove,
}: {
  i: number;
  asked: Asked;
  fault: (field: string) => string | undefined;
  only: boolean;
  onRemove: () => void;
}) {
  const form = useFormContext<KeyedValues>();
  const line = useWatch({ control: form.control, name: `lines.${i}` }) ?? emptyKeyed;
  const facts = useQuery({
    queryKey: key('goods-facts', line.sku, asked),
    queryFn: () =>
      ask(
        api.GET('/api/order-desk/goods/{sku}', {
          params: { path: { sku: line.sku }, query: { site: asked.siteId, account: asked.account, channel: asked.channel } },
        }),
      ),
    enabled: line.sku !== '',
    retry: false,
  });
  const found = useQuery({
    queryKey: key('goods-found', line.sku),
    queryFn: () => ask(api.GET('/api/items', { params: { query: { search: line.sku, limit: '8' } as never } })),
    enabled: line.sku.length > 1 && !facts.data && line.line === null,
    placeholderData: (was) => was,
  });
  const goods = facts.data;
  const put = (more: Partial<KeyedLine>) => form.setValue(`lines.${i}`, { ...line, ...more }, { shouldDirty: true });
  // What this customer pays is filled in once; what is typed stays.
  useEffect(() => {
    if (goods && line.line === null && line.price === '') {
      const price = priceFor(goods, line.factor);
      if (price !== '') form.setValue(`lines.${i}.price`, price);
    }
  }, [goods, line.line, line.price, line.factor, form, i]);
  /** Goes on to how many: one, unless something else is typed. */
  const onToQuantity = () => {
    if (line.quantity === '') form.setValue(`lines.${i}.quantity`, '1', { shouldDirty: true });
    window.setTimeout(() => document.getElementById(`keyed-quantity-${i}`)?.focus(), 0);
  };
  const sum = lineSum(line);
  const wrong = fault(`lines.${i}.sku`) ?? fault(`lines.${i}.quantity`) ?? fault(`lines.${i}.factor`) ?? fault(`lines.${i}.price`);
  return (
    <tr>
      <NumberCell>{line.line ?? i + 1}</NumberCell>
      <PictureCell>{goods && <Picture name={goods.picture} size={30} />}</PictureCell>
      <td className="py-1.5!" style={{ minWidth: 150 }}>
        {line.line === null ? (
          <SearchField
            label={`Goods of line ${i + 1}`}
            code={goods !== undefined}
            value={line.sku}
            autoFocus={i > 0}
            invalid={fault(`lines.${i}.sku`) !== undefined}
            placeholder="SKU or words, or scan them"
            found={goods ? [] : (found.data?.rows ?? []).map((r) => ({ value: r.sku, title: r.name }))}
            onType={(sku) => put({ sku, factor: 1, price: '' })}
            onTake={({ value }) => {
              put({ sku: value, factor: 1, price: '' });
              onToQuantity();
            }}
            onDone={() => line.sku !== '' && onToQuantity()}
          />
        ) : (
          <b className={goods ? '' : 'code'}>{goods?.name ?? (line.sku || 'Unknown code')}</b>
        )}
        <Stock goods={goods} line={line} units={sum?.units ?? 0} />
        {wrong && <span className="fault block">{wrong}</span>}
      </td>
      <td className="num" style={{ width: 68 }}>
        <Input
          id={`keyed-quantity-${i}`}
          className="num"
          inputMode="decimal"
          aria-label={`How many, line ${i + 1}`}
          aria-invalid={line.quantity !== '' && line.sku !== '' && !sum}
          {...form.register(`lines.${i}.quantity`)}
          onFocus={(e) => e.target.select()}
        />
      </td>
      <td style={{ width: 112 }}>
        <Select
          aria-label={`Pack of line ${i + 1}`}
          value={line.factor}
          disabled={!goods}
          onChange={(e) => {
            const factor = Number(e.target.value);
            put({ factor, price: goods ? priceFor(goods, factor) || line.price : line.price });
          }}
        >
          {(goods?.packs ?? [{ factor: line.factor, plural: 'pieces' }]).map((p) => (
            <option key={p.factor} value={p.factor}>
              {p.plural} {p.factor > 1 ? `of ${p.factor}` : ''}
            </option>
          ))}
        </Select>
      </td>
      <td className="num" style={{ width: 84 }}>
        <Input className="num" inputMode="decimal" aria-label={`Price, line ${i + 1}`} {...form.register(`lines.${i}.price`)} />
      </td>
      <td className="num" style={{ width: 78 }}>
        {sum && <b>{moneyText(sum.goods)}</b>}
      </td>
      <td>
        <button type="button" aria-label={`Take line ${i + 1} out`} onClick={onRemove} disabled={only}>
          <Glyph name="shut" />
        </button>
      </td>
    </tr>
  );
}

const FROM = { own: 'Their own price', last: 'Price as last time', channel: 'List price' } as const;
/** Where the price comes from, as long as it is the one that is known. */
function priceNote(goods: Facts, line: KeyedLine): string {
  const known = goods.prices.find((p) => p.factor === line.factor) ?? goods.prices[0];
  return known && line.price === priceFor(goods, line.factor) ? FROM[known.from] : '';
}

/** What is free for a line, here and elsewhere, when more comes, and whether it empties the site. */
function Stock({ goods, line, units }: { goods: Facts | undefined; line: KeyedLine; units: number }) {
  if (!goods) return null;
  // What a line that is there already holds is not free to others, and is its own.
  const lacks = line.line === null ? Math.max(0, units - goods.free) : 0;
  return (
    <span className="note block">
      {line.line === null && `${goods.name}. `}
      <span className={lacks > 0 ? 'stamped' : ''}>
        {lacks > 0 ? `${whole(goods.free)} free, ${whole(lacks)} short` : `${whole(goods.free)} free`}
      </span>
      {goods.elsewhere.map((e) => `, ${whole(e.free)} at ${e.site}`)}
      {goods.moreOn && goods.more !== null && `, ${whole(goods.more)} more ${dayWord(goods.moreOn)}`}
      {line.line === null && lacks === 0 && units > 0 && units === goods.free && <b>. This takes the last of them</b>}
      {line.line === null && line.price !== '' && priceNote(goods, line) && `. ${priceNote(goods, line)}`}
    </span>
  );
}
