import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
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
import { BlockHead, FilterLine } from '../../../ui/page';
import { Empty, Shown } from '../../../ui/states';
import { DenseTable, GlyphCell } from '../../../ui/table';
import { itemPath } from '../../item-path';
import { ShelvesWords } from '../shelves-words';
import { buildGlyph, buildState } from './build-words';

/** What is built here: under way first, and what could be built of what is free. */
export function BuildsPage() {
  const beside = useBeside();
  const { code: open } = useParams();
  const rights = useMe().data?.rights ?? [];
  const [params, change] = useAddress();
  const state = params.get('state') === 'all' ? 'all' : 'open';
  const q = params.get('q') ?? '';
  const query = useLongList(key('builds', state, q), (page) => ask(api.GET('/api/builds', { params: { query: { ...page, state, q } } })));
  const mayPlan = ['release', 'items', 'store'].some((r) => rights.includes(r));
  return (
    <ListPage title="Assembly" width={520}>
      <ShelvesWords at="builds">
        {mayPlan && (
          <ButtonLink to="/shelves/builds/new" next={!beside}>
            Build something
          </ButtonLink>
        )}
      </ShelvesWords>
      <FilterLine>
        <Words
          label="Which assemblies"
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
          aria-label="Number or goods"
          placeholder="number, goods"
          defaultValue={q}
          onChange={(e) => change((now) => withParam(now, 'q', e.target.value))}
        />
      </FilterLine>
      <Shown query={query}>
        {({ rows }) =>
          rows.length === 0 ? (
            <Empty title={q || state === 'all' ? 'None is like that' : 'Nothing is being built'}>
              An item that is built here has its parts and its labour on its form. It is planned here, its parts are gathered with a phone,
              and it is worth what went into it.
            </Empty>
          ) : (
            <DenseTable>
              <thead>
                <tr>
                  <td className="w-6" />
                  <th>Assembly</th>
                  <th>Goods</th>
                  <th className="num">Units</th>
                  <th>Where it stands</th>
                  {!beside && <th>Site</th>}
                  {!beside && <th>Planned</th>}
                </tr>
              </thead>
              <tbody>
                {rows.map((b) => (
                  <OpenRow key={b.code} to={`/shelves/builds/${b.code}`} open={b.code === open} soft={b.state === 'cancelled'}>
                    <GlyphCell>
                      <Glyph name={buildGlyph(b)} size={14} says={buildState(b)} />
                    </GlyphCell>
                    <td className="code">{b.code}</td>
                    <td>{b.item}</td>
                    <td className="num">{b.state === 'built' ? b.builtUnits : b.units}</td>
                    <td className="mid">{buildState(b)}</td>
                    {!beside && <td className="mid">{b.site}</td>}
                    {!beside && (
                      <td className="mid">
                        {day(b.madeAt)}
                        {b.madeBy && `, ${b.madeBy}`}
                      </td>
                    )}
                  </OpenRow>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
      <MoreRows list={query} what={['assembly', 'assemblies']} />
      {!beside && <Buildable />}
    </ListPage>
  );
}

/** How many of each could be built, and what allows no more. */
function Buildable() {
  const query = useQuery({ queryKey: key('builds', 'buildable'), queryFn: () => ask(api.GET('/api/builds/buildable')) });
  if (!query.data || query.data.length === 0) return null;
  return (
    <>
      <BlockHead className="mt-5">
        <h2>What could be built</h2>
        <span className="note">of what is free</span>
      </BlockHead>
      <DenseTable aria-label="What could be built">
        <thead>
          <tr>
            <th>Goods</th>
            <th>Site</th>
            <th className="num">Units</th>
            <th>Waits for</th>
          </tr>
        </thead>
        <tbody>
          {query.data.map((b) => (
            <tr key={`${b.sku}/${b.siteId}`}>
              <td>
                <Link to={itemPath(b.sku)}>{b.item}</Link>
              </td>
              <td className="mid">{b.site}</td>
              <td className="num strong">{b.buildable}</td>
              <td className="mid">
                {b.scarceSku && <Link to={itemPath(b.scarceSku)}>{b.scarce}</Link>}
                {b.expectedOn ? `, more by ${day(b.expectedOn)}` : ', none is on order'}
              </td>
            </tr>
          ))}
        </tbody>
      </DenseTable>
    </>
  );
}
