import { useParams } from 'react-router';
import { api, ask } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe } from '../../../api/queries';
import { useAddress, withParam } from '../../../ui/address';
import { ButtonLink } from '../../../ui/button';
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
import { ShelvesWords } from '../shelves-words';
import { isShort, transferGlyph, transferState } from './transfer-words';

/** What goes between sites: under way first, and what came short until it is settled. */
export function TransfersPage() {
  const beside = useBeside();
  const { code: open } = useParams();
  const rights = useMe().data?.rights ?? [];
  const [params, change] = useAddress();
  const state = params.get('state') === 'all' ? 'all' : 'open';
  const q = params.get('q') ?? '';
  const query = useLongList(key('transfers', state, q), (page) =>
    ask(api.GET('/api/transfers', { params: { query: { ...page, state, q } } })),
  );
  const mayAsk = ['buy', 'order-desk', 'store'].some((r) => rights.includes(r));
  return (
    <ListPage title="Transfers" width={520}>
      <ShelvesWords at="transfers">
        {mayAsk && (
          <ButtonLink to="/shelves/transfers/new" next={!beside}>
            Send to another site
          </ButtonLink>
        )}
      </ShelvesWords>
      <FilterLine>
        <Words
          label="Which transfers"
          value={state}
          words={[
            { value: 'open', says: 'Under way' },
            { value: 'all', says: 'All' },
          ]}
          onChange={(wanted) => change((now) => withParam(now, 'state', wanted === 'all' ? 'all' : ''))}
        />
        <Input
          className="ml-auto"
          style={{ width: 170 }}
          type="search"
          aria-label="Number, site or note"
          placeholder="number, site, note"
          defaultValue={q}
          onChange={(e) => change((now) => withParam(now, 'q', e.target.value))}
        />
      </FilterLine>
      <Shown query={query}>
        {({ rows }) =>
          rows.length === 0 ? (
            <Empty title={q || state === 'all' ? 'None is like that' : 'Nothing goes between your sites'}>
              What one site lacks and another has is asked for here, gathered and taken in on phones; on the road it is still yours.
            </Empty>
          ) : (
            <DenseTable>
              <thead>
                <tr>
                  <td className="w-6" />
                  <th>Transfer</th>
                  <th>From</th>
                  <th>To</th>
                  <th>Where it stands</th>
                  {!beside && <th className="num">Lines</th>}
                  {!beside && <th className="num">Units</th>}
                  {!beside && <th>Wanted</th>}
                  {!beside && <th>Asked for</th>}
                </tr>
              </thead>
              <tbody>
                {rows.map((t) => (
                  <OpenRow key={t.code} to={`/shelves/transfers/${t.code}`} open={t.code === open} soft={t.state === 'cancelled'}>
                    <GlyphCell>
                      <Glyph name={transferGlyph(t)} size={14} says={transferState(t)} />
                    </GlyphCell>
                    <td className="code">{t.code}</td>
                    <td>{t.fromSite}</td>
                    <td>{t.toSite}</td>
                    <td className={isShort(t) ? 'stamped' : 'mid'}>{transferState(t)}</td>
                    {!beside && <td className="num">{t.lines}</td>}
                    {!beside && <td className="num">{t.units}</td>}
                    {!beside && <td className="mid">{t.expectedOn ? day(t.expectedOn) : ''}</td>}
                    {!beside && (
                      <td className="mid">
                        {day(t.madeAt)}
                        {t.madeBy && `, ${t.madeBy}`}
                      </td>
                    )}
                  </OpenRow>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
      <MoreRows list={query} what={['transfer', 'transfers']} />
    </ListPage>
  );
}
