import { micro, moneyText, priceText, times } from '@vectrum/core/money';
import { countOf } from '@vectrum/core/quantity';
import { useQuery } from '@tanstack/react-query';
import { Fragment } from 'react';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { whole } from '../../ui/format';
import { Glyph, type GlyphName, progressGlyph } from '../../ui/glyph';
import { Picture } from '../../ui/picture';
import { GlyphCell, LinesTable, PictureCell } from '../../ui/table';
import { LineCures, useCures } from './line-cures';
import { SumRow, useWhy, WhyNumber, WhySum } from '../../ui/why';
import { itemPath } from '../item-path';

type Order = Dto['OrderDto'];
type Line = Dto['OrderLineDto'];

function lineState(l: Line): [GlyphName, string] {
  if (l.isKit) return ['full', 'by its parts'];
  if (l.wanted === 0) return ['empty', l.leftOut > 0 ? 'left out' : 'taken out'];
  if (!l.sku) return ['blocked', 'unknown code'];
  if (l.shipped >= l.wanted) return ['full', 'gone'];
  if (l.packed > l.shipped) return ['most', `${l.packed} packed`];
  if (l.picked > l.shipped) return ['half', `${l.picked} picked`];
  if (l.reserved >= l.wanted) return ['full', 'reserved'];
  if (l.insert) return [progressGlyph(l.reserved, l.wanted), 'none to go along'];
  return [progressGlyph(l.reserved, l.wanted), l.reserved > 0 ? `${l.wanted - l.reserved} short` : 'short'];
}

const wantedWords = (l: Line) =>
  l.isKit
    ? `${whole(l.quantity)} ${l.quantity === 1 ? 'kit' : 'kits'}`
    : l.factor > 1
      ? `${whole(l.quantity)} × ${whole(l.factor)}`
      : countOf(l.wanted, { name: l.unit ?? 'piece', plural: l.units ?? 'pieces' });

/** The lines of an order with their stock and what they cost; behind what is available stands the sum. */
export function OrderLines({ order, may }: { order: Order; may: boolean }) {
  const why = useWhy();
  const cures = useCures(order);
  const [, sku = ''] = (why.open ?? '').split('|');
  const sum = useQuery({
    queryKey: key('why', sku, order.siteId),
    queryFn: () =>
      ask(
        api.GET('/api/items/{sku}/why/{figure}/{siteId}', {
          params: { path: { sku, figure: 'available', siteId: String(order.siteId) } },
        }),
      ),
    enabled: why.open !== null,
  });
  return (
    <LinesTable>
      <thead>
        <tr>
          <th colSpan={2}>Line</th>
          <th className="num">Wanted</th>
          <td />
          <th>Stock</th>
          <th className="num">Free at {order.site}</th>
          <th className="num">Price</th>
          <th className="num">Goods</th>
        </tr>
      </thead>
      <tbody>
        {order.lines.map((l) => {
          const [glyph, words] = lineState(l);
          const own = `${l.line}|${l.sku ?? ''}`;
          const against = cures.data?.find((c) => c.line === l.line);
          return (
            <Fragment key={l.line}>
              <tr className={l.wanted === 0 && !l.isKit ? 'soft line-through' : undefined}>
                <PictureCell>
                  <Picture name={l.picture} size={28} />
                </PictureCell>
                <td className={l.kit !== null ? 'pl-4!' : undefined}>
                  <b>{l.sku ? <Link to={itemPath(l.sku)}>{l.name}</Link> : 'Unknown code'}</b>
                  <span className="note code">{l.sku ?? l.channelSku}</span>
                  {l.along && <span className="note"> goes along</span>}
                </td>
                <td className="num">
                  <b>{wantedWords(l)}</b>
                </td>
                <GlyphCell>
                  <Glyph name={glyph} size={15} says={words} />
                </GlyphCell>
                <td className={`whitespace-nowrap ${words.includes('short') || glyph === 'blocked' ? 'stamped' : 'mid'}`}>{words}</td>
                <td className="num">
                  {l.sku && (
                    <WhyNumber label="Why this many available" open={why.open === own} onToggle={() => why.toggle(own)}>
                      {whole(l.free)}
                    </WhyNumber>
                  )}
                </td>
                <td className="num mid">{l.kit === null && priceText(micro(l.price))}</td>
                <td className="num">{l.kit === null && moneyText(times(micro(l.price), l.quantity))}</td>
              </tr>
              {against && (
                <tr className="cure">
                  <td />
                  <td colSpan={7}>
                    <LineCures order={order} line={l.line} cures={against} may={may} />
                  </td>
                </tr>
              )}
              {why.open === own && (
                <SumRow columns={8}>
                  <WhySum terms={sum.data} at={12} />
                </SumRow>
              )}
            </Fragment>
          );
        })}
      </tbody>
    </LinesTable>
  );
}
