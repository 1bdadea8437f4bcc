import { useParams } from 'react-router';
import { api, ask } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe } from '../../../api/queries';
import { useAddress, withParam } from '../../../ui/address';
import { ButtonLink, TextLink } from '../../../ui/button';
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
import { countGlyph, countState } from './count-words';

/** Counts of bins: those to be decided on first, then those under way. */
export function CountsPage() {
  const beside = useBeside();
  const { code: open } = useParams();
  const rights = useMe().data?.rights ?? [];
  const [params, change] = useAddress();
  const state = params.get('state') === 'all' ? 'all' : 'open';
  const q = params.get('q') ?? '';
  const query = useLongList(key('counts', state, q), (page) => ask(api.GET('/api/counts', { params: { query: { ...page, state, q } } })));
  const mayDecide = rights.includes('settle-counts');
  return (
    <ListPage title="Counts" width={520}>
      <ShelvesWords at="counts">
        {mayDecide && (
          <ButtonLink to="/shelves/counts/new" next={!beside}>
            Draw up a count
          </ButtonLink>
        )}
      </ShelvesWords>
      <FilterLine>
        <Words
          label="Which counts"
          value={state}
          words={[
            { value: 'open', says: 'Under way' },
            { value: 'all', says: 'All' },
          ]}
          onChange={(wanted) => change((now) => withParam(now, 'state', wanted === 'all' ? 'all' : ''))}
        />
        {mayDecide && <TextLink to="/shelves/counts/accuracy">How right we are</TextLink>}
        {mayDecide && <TextLink to="/shelves/counts/rules">Rules</TextLink>}
        <Input
          className="ml-auto"
          style={{ width: 170 }}
          type="search"
          aria-label="Number or name"
          placeholder="number, name"
          defaultValue={q}
          onChange={(e) => change((now) => withParam(now, 'q', e.target.value))}
        />
      </FilterLine>
      <Shown query={query}>
        {({ rows }) =>
          rows.length === 0 ? (
            <Empty title={q || state === 'all' ? 'None is like that' : 'Nothing is being counted'}>
              A count is drawn up here by aisle, by plan, by worth or by doubt, counted on phones while work goes on, and decided on line by
              line.
            </Empty>
          ) : (
            <DenseTable>
              <thead>
                <tr>
                  <td className="w-6" />
                  <th>Count</th>
                  <th>Of</th>
                  <th>Where it stands</th>
                  <th className="num">Bins</th>
                  {!beside && <th className="num">To decide</th>}
                  {!beside && <th>Site</th>}
                  {!beside && <th>Drawn up</th>}
                </tr>
              </thead>
              <tbody>
                {rows.map((c) => (
                  <OpenRow key={c.code} to={`/shelves/counts/${c.code}`} open={c.code === open} soft={c.state === 'dropped'}>
                    <GlyphCell>
                      <Glyph name={countGlyph(c.state)} size={14} says={countState(c.state)} />
                    </GlyphCell>
                    <td className="code">{c.code}</td>
                    <td>{c.title}</td>
                    <td className={c.state === 'review' ? '' : 'mid'}>{countState(c.state)}</td>
                    <td className="num">
                      {c.binsDone} of {c.bins}
                    </td>
                    {!beside && <td className="num">{c.toDecide > 0 ? c.toDecide : ''}</td>}
                    {!beside && <td className="mid">{c.site}</td>}
                    {!beside && (
                      <td className="mid">
                        {day(c.madeAt)}
                        {c.madeBy && `, ${c.madeBy}`}
                      </td>
                    )}
                  </OpenRow>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
      <MoreRows list={query} what={['count', 'counts']} />
    </ListPage>
  );
}
