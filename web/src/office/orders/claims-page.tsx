import { Link, useParams } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { Words } from '../../ui/field';
import { age } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { ListPage } from '../../ui/list-page';
import { MoreRows, useLongList } from '../../ui/long-list';
import { OpenRow } from '../../ui/open-row';
import { FilterLine } from '../../ui/page';
import { Empty, Shown } from '../../ui/states';
import { DenseTable, GlyphCell } from '../../ui/table';
import { useAddress, withParam } from '../../ui/address';
import { CLAIM_STATES } from './claim-words';
import { OrdersWords } from './orders-words';

const glyphOf = (state: Dto['ClaimRowDto']['state']) =>
  state === 'open' ? 'blocked' : state === 'claimed' ? 'half' : state === 'settled' ? 'full' : 'held';

/** Parcels that are late, damaged, back or lost on their way, and what became of them. */
export function ClaimsPage() {
  const { id: open } = useParams();
  const [params, change] = useAddress();
  const state = params.get('state') === 'all' ? 'all' : 'open';
  const query = useLongList(key('claims', state), (page) => ask(api.GET('/api/claims', { params: { query: { ...page, state } } })));
  return (
    <ListPage title="Parcels in trouble on their way" width={520}>
      <FilterLine>
        <OrdersWords here="/orders/claims" />
        <span className="ml-auto" />
        <Words
          label="Which claims"
          value={state}
          words={[
            { value: 'open', says: 'Open' },
            { value: 'all', says: 'All' },
          ]}
          onChange={(wanted) => change((now) => withParam(now, 'state', wanted === 'all' ? 'all' : ''))}
        />
        <Link to="/orders/claims/new" className="act">
          Open a claim
        </Link>
      </FilterLine>
      <Shown query={query}>
        {({ rows }) =>
          rows.length === 0 ? (
            <Empty title="Every parcel is on its way">
              What a carrier calls delayed, damaged, returned or lost comes here by itself. What a customer says first is opened by hand.
            </Empty>
          ) : (
            <DenseTable>
              <thead>
                <tr>
                  <td className="w-6" />
                  <th>Parcel</th>
                  <th>Customer</th>
                  <th>What</th>
                  <th>State</th>
                  <th className="num">Amount</th>
                  <th className="num">Since</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((c) => (
                  <OpenRow key={c.id} to={`/orders/claims/${c.id}`} open={String(c.id) === open} soft={c.state === 'dropped'}>
                    <GlyphCell>
                      <Glyph name={glyphOf(c.state)} size={14} says={CLAIM_STATES[c.state]} />
                    </GlyphCell>
                    <td className="code">{c.parcel}</td>
                    <td>{c.customer}</td>
                    <td className={c.state === 'open' ? 'stamped' : ''}>{c.kind}</td>
                    <td className="mid">{CLAIM_STATES[c.state]}</td>
                    <td className="num">{c.paid ?? c.asked}</td>
                    <td className="num mid">{age(c.openedAt)}</td>
                  </OpenRow>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
      <MoreRows list={query} what={['claim', 'claims']} />
    </ListPage>
  );
}
