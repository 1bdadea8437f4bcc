import { useParams } from 'react-router';
import { api, ask } from '../../../api/client';
import { key } from '../../../api/keys';
import { useAddress, withParam } from '../../../ui/address';
import { TextLink } from '../../../ui/button';
import { Words } from '../../../ui/field';
import { day } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';
import { Input } from '../../../ui/input';
import { ListPage, useBeside } from '../../../ui/list-page';
import { MoreRows, useLongList } from '../../../ui/long-list';
import { OpenRow } from '../../../ui/open-row';
import { FilterLine } from '../../../ui/page';
import { Empty, Shown } from '../../../ui/states';
import { DenseTable, GlyphCell } from '../../../ui/table';
import { OrdersWords } from '../orders-words';
import { stateGlyph, stateWords, wishWords } from './return-words';

/** What customers send back: what is here and waits for a decision first. */
export function CustomerReturnsPage() {
  const beside = useBeside();
  const { code: open } = useParams();
  const [params, change] = useAddress();
  const state = params.get('state') === 'all' ? 'all' : 'open';
  const q = params.get('q') ?? '';
  const query = useLongList(key('customer-returns', state, q), (page) =>
    ask(api.GET('/api/customer-returns', { params: { query: { ...page, state, q } } })),
  );
  return (
    <ListPage title="What customers send back" width={560}>
      <FilterLine>
        <OrdersWords here="/orders/returns" />
        <Input
          className="ml-auto"
          style={{ width: 190 }}
          type="search"
          aria-label="Number, order or customer"
          placeholder="number, order, customer"
          defaultValue={q}
          onChange={(e) => change((now) => withParam(now, 'q', e.target.value))}
        />
        <Words
          label="Which returns"
          value={state}
          words={[
            { value: 'open', says: 'Open' },
            { value: 'all', says: 'All' },
          ]}
          onChange={(wanted) => change((now) => withParam(now, 'state', wanted === 'all' ? 'all' : ''))}
        />
        <TextLink to="/orders/returns/tally">What comes back most</TextLink>
      </FilterLine>
      <Shown query={query}>
        {({ rows }) =>
          rows.length === 0 ? (
            <Empty title={q || state === 'all' ? 'None is like that' : 'Nothing is on its way back'}>
              A return is announced from its order, by its channel, or found at the dock with a phone: Take back.
            </Empty>
          ) : (
            <DenseTable>
              <thead>
                <tr>
                  <td className="w-6" />
                  <th>Return</th>
                  <th>Customer</th>
                  <th>Order</th>
                  {!beside && <th>Goods</th>}
                  <th>Where it stands</th>
                  {!beside && <th>They wish</th>}
                  {!beside && <th>Announced</th>}
                </tr>
              </thead>
              <tbody>
                {rows.map((r) => (
                  <OpenRow key={r.code} to={`/orders/returns/${r.code}`} open={r.code === open} soft={r.state === 'called-off'}>
                    <GlyphCell>
                      <Glyph name={stateGlyph(r.state)} size={14} says={stateWords(r)} />
                    </GlyphCell>
                    <td className="code">{r.code}</td>
                    <td>{r.customer}</td>
                    <td className="code">{r.order ?? ''}</td>
                    {!beside && (
                      <td>
                        {r.goods}
                        {r.lines > 1 && ` and ${r.lines - 1} more`}
                      </td>
                    )}
                    <td className={r.state === 'here' ? '' : 'mid'}>{stateWords(r)}</td>
                    {!beside && <td className="mid">{wishWords(r.wish)}</td>}
                    {!beside && <td className="mid">{day(r.announcedAt)}</td>}
                  </OpenRow>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
      <MoreRows list={query} what={['return', 'returns']} />
    </ListPage>
  );
}
