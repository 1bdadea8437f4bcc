import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { api, ask } from '../../../api/client';
import { key } from '../../../api/keys';
import { ExportLinks } from '../../../ui/export-links';
import { Glyph } from '../../../ui/glyph';
import { ListPage, useBeside } from '../../../ui/list-page';
import { OpenRow } from '../../../ui/open-row';
import { Empty, Shown } from '../../../ui/states';
import { FilterLine } from '../../../ui/page';
import { TextLink } from '../../../ui/button';
import { DenseTable, GlyphCell } from '../../../ui/table';

/** Who takes parcels away. */
export function CarriersPage() {
  const beside = useBeside();
  const { code: open } = useParams();
  const query = useQuery({ queryKey: key('carriers'), queryFn: () => ask(api.GET('/api/carriers')) });
  return (
    <ListPage title="Carriers" width={440}>
      <FilterLine>
        {!beside && <ExportLinks list="carriers" />}
        <span />
        <TextLink to="/setup/carriers/new">New carrier</TextLink>
      </FilterLine>
      <Shown query={query}>
        {(list) =>
          list.length === 0 ? (
            <Empty title="No carriers yet">
              Parcels leave with a carrier: one with a system of its own, or one for which you say services and prices.
            </Empty>
          ) : (
            <DenseTable className="w-full">
              <thead>
                <tr>
                  <GlyphCell />
                  <th>Carrier</th>
                  <th>Lanes</th>
                  {!beside && <th>Labels come from</th>}
                </tr>
              </thead>
              <tbody>
                {list.map((c) => (
                  <OpenRow key={c.code} to={`/setup/carriers/${c.code}`} open={c.code === open}>
                    <GlyphCell>
                      <Glyph
                        name={c.lanes.length === 0 ? 'blocked' : 'full'}
                        size={12}
                        says={c.lanes.length === 0 ? 'no lane: it cannot be chosen' : 'ready'}
                      />
                    </GlyphCell>
                    <td>{c.name}</td>
                    <td className="code">{c.lanes.map((l) => l.place).join(' ')}</td>
                    {!beside && <td className="mid">{c.baseUrl ? `its system at ${c.baseUrl}` : 'this house'}</td>}
                  </OpenRow>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
    </ListPage>
  );
}
