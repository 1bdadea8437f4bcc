import { key } from '../../api/keys';
import { Link } from 'react-router';
import { api, ask } from '../../api/client';
import { useMe } from '../../api/queries';
import { age, when } from '../../ui/format';
import { byDeparture } from '../../ui/by-departure';
import { DepartureRow } from '../../ui/departure-row';
import { RowLink } from '../../ui/button';
import { Glyph } from '../../ui/glyph';
import { Empty, Shown } from '../../ui/states';
import { Page } from '../../ui/page';
import { DenseTable, GlyphCell } from '../../ui/table';
import { MoreRows, useLongList } from '../../ui/long-list';

/** Totes that wait at the packing tables. */
export function PackingPage() {
  const me = useMe();
  const query = useLongList(key('bench-queue'), (query) => ask(api.GET('/api/bench/queue', { params: { query } })));
  const packs = me.data?.rights.includes('pack') ?? false;
  return (
    <Page aria-label="To pack">
      <h1 className="sr">To pack</h1>
      <Shown query={query}>
        {({ rows: list }) =>
          list.length === 0 ? (
            <Empty title="Nothing waits to be packed">Totes show here once they are set down at a packing table.</Empty>
          ) : (
            <DenseTable>
              <thead>
                <tr>
                  <GlyphCell />
                  <th>Order</th>
                  <th>Customer</th>
                  <th>Tote</th>
                  <th>Stands at</th>
                  <th className="num">Pieces</th>
                  <th>Promised</th>
                  <th className="num">Waits</th>
                  <th>Note</th>
                  <td />
                </tr>
              </thead>
              {byDeparture(list, ['order', 'orders']).map((g, gi) => (
                <tbody key={g.key}>
                  <DepartureRow group={g} columns={10} />
                  {g.list.map((o, i) => (
                    <tr key={o.order}>
                      <GlyphCell>
                        <Glyph name="half" size={14} says />
                      </GlyphCell>
                      <td className="code">
                        <Link to={`/orders/${o.order}`}>{o.order}</Link>
                      </td>
                      <td>{o.customer}</td>
                      <td className={o.tote ? 'code' : 'soft'}>{o.tote ?? 'on the shelf'}</td>
                      <td className="code">{o.table}</td>
                      <td className="num">{o.pieces}</td>
                      <td>{when(o.promisedAt)}</td>
                      <td className="num mid">{o.since ? age(o.since) : ''}</td>
                      <td className="mid">{o.note ? 'to read' : ''}</td>
                      <td className="num">
                        {packs && (
                          <RowLink
                            to={`/bench/${o.order}`}
                            first={gi + i === 0}
                            style={gi + i === 0 ? { height: 24, fontSize: 13 } : undefined}
                          >
                            Pack it
                          </RowLink>
                        )}
                      </td>
                    </tr>
                  ))}
                </tbody>
              ))}
            </DenseTable>
          )
        }
      </Shown>
      <MoreRows list={query} what={['order', 'orders']} />
    </Page>
  );
}
