import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { api, ask } from '../../../api/client';
import { key } from '../../../api/keys';
import { ExportLinks } from '../../../ui/export-links';
import { Glyph } from '../../../ui/glyph';
import { ListPage, useBeside } from '../../../ui/list-page';
import { OpenRow } from '../../../ui/open-row';
import { Empty, Shown } from '../../../ui/states';

/** Who takes parcels away. */
export function CarriersPage() {
  const beside = useBeside();
  const { code: open } = useParams();
  const query = useQuery({ queryKey: key('carriers'), queryFn: () => ask(api.GET('/api/carriers')) });
  return (
    <ListPage title="Carriers" width={440}>
      <div className="filter">
        {!beside && <ExportLinks list="carriers" />}
        <span />
        <Link to="/setup/carriers/new" className="act-link">
          New carrier
        </Link>
      </div>
      <Shown query={query}>
        {(list) =>
          list.length === 0 ? (
            <Empty title="No carriers yet">
              Parcels leave with a carrier: one with a system of its own, or one for which you say services and prices.
            </Empty>
          ) : (
            <table className="dense w-full">
              <thead>
                <tr>
                  <td className="gl" />
                  <th>Carrier</th>
                  <th>Lanes</th>
                  {!beside && <th>Labels come from</th>}
                </tr>
              </thead>
              <tbody>
                {list.map((c) => (
                  <OpenRow key={c.code} to={`/setup/carriers/${c.code}`} open={c.code === open}>
                    <td className="gl">
                      <Glyph
                        name={c.lanes.length === 0 ? 'blocked' : 'full'}
                        size={12}
                        says={c.lanes.length === 0 ? 'no lane: it cannot be chosen' : 'ready'}
                      />
                    </td>
                    <td>{c.name}</td>
                    <td className="code">{c.lanes.map((l) => l.place).join(' ')}</td>
                    {!beside && <td className="mid">{c.baseUrl ? `its system at ${c.baseUrl}` : 'this house'}</td>}
                  </OpenRow>
                ))}
              </tbody>
            </table>
          )
        }
      </Shown>
    </ListPage>
  );
}
