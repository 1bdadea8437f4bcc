import { micro, moneyText } from '@vectrum/core/money';
import type { Dto } from '../../api/client';
import { byDeparture } from '../../ui/by-departure';
import { DepartureRow } from '../../ui/departure-row';
import { plural, when } from '../../ui/format';
import { Glyph, orderGlyph, Pips } from '../../ui/glyph';
import { useBeside } from '../../ui/list-page';
import { OpenRow } from '../../ui/open-row';
import { ChooseCell, DenseTable, GlyphCell } from '../../ui/table';
import { FLAT, type Grouping, SAYS, type Show } from './order-views';

type Row = Dto['OrderRowDto'];

/** Orders in the groups that were asked for. */
export function groupsOf(orders: readonly Row[], show: Show, by: Grouping) {
  if (FLAT.has(show)) return [{ key: show, title: SAYS[show], note: plural(orders.length, 'order', 'orders'), list: [...orders] }];
  if (by === 'departure') return byDeparture(orders, ['order', 'orders']);
  const groups = new Map<string, Row[]>();
  for (const o of orders) groups.set(o[by], [...(groups.get(o[by]) ?? []), o]);
  return [...groups].map(([title, list]) => ({ key: title, title, note: plural(list.length, 'order', 'orders'), list }));
}

/** Sales orders in groups; several can be chosen where nothing is open beside them. */
export function OrdersTable({
  orders,
  open,
  show,
  by,
  chosen,
  onChoose,
}: {
  orders: readonly Row[];
  open: string | undefined;
  show: Show;
  by: Grouping;
  chosen: ReadonlySet<string>;
  /** Chooses orders or lets them go; absent where nothing can be done to several. */
  onChoose: ((codes: readonly string[], on: boolean) => void) | undefined;
}) {
  const beside = useBeside();
  const canChoose = !beside && onChoose !== undefined;
  const columns = (beside ? 6 : 9) + (canChoose ? 1 : 0);
  return (
    <DenseTable>
      <thead>
        <tr>
          {canChoose && (
            <ChooseCell
              says="Choose all that are shown"
              checked={orders.length > 0 && orders.every((o) => chosen.has(o.code))}
              onChoose={(on) =>
                onChoose(
                  orders.map((o) => o.code),
                  on,
                )
              }
            />
          )}
          <GlyphCell />
          <th>Order</th>
          <th>Customer</th>
          <th>Channel</th>
          <th>Promised</th>
          <th>Stock for each line</th>
          {!beside && (
            <>
              <th className="max-[1180px]:hidden">Holds</th>
              <th className="num max-[1180px]:hidden">Worth</th>
              <th>How far, and who</th>
            </>
          )}
        </tr>
      </thead>
      {groupsOf(orders, show, by).map((g) => (
        <tbody key={g.key}>
          <DepartureRow group={g} columns={columns} />
          {g.list.map((o) => (
            <OpenRow key={o.code} to={`/orders/${o.code}${window.location.search}`} open={o.code === open}>
              {canChoose && <ChooseCell says={`Choose ${o.code}`} checked={chosen.has(o.code)} onChoose={(on) => onChoose([o.code], on)} />}
              <GlyphCell>
                <Glyph name={orderGlyph(o.state, o.state === 'held' || o.late)} size={14} says={o.state} />
              </GlyphCell>
              <td className="code">{o.code}</td>
              <td className="max-w-[170px] overflow-hidden text-ellipsis">{o.customer}</td>
              <td className="mid">{o.channel}</td>
              <td className={o.late ? 'stamped' : ''}>{when(o.promisedAt)}</td>
              <td>
                <Pips lines={o.stock} />
              </td>
              {!beside && (
                <>
                  <td className="mid max-w-[260px] overflow-hidden text-ellipsis max-[1180px]:hidden">{o.holds}</td>
                  <td className="num max-[1180px]:hidden">{moneyText(micro(o.worth))}</td>
                  <td className="mid max-w-[240px] overflow-hidden text-ellipsis">
                    {o.holdReason ?? [o.state === 'open' ? '' : o.state, o.who].filter(Boolean).join(', ')}
                  </td>
                </>
              )}
            </OpenRow>
          ))}
        </tbody>
      ))}
    </DenseTable>
  );
}
