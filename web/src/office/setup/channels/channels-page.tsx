import { useQuery } from '@tanstack/react-query';
import { key } from '../../../api/keys';
import { useParams } from 'react-router';
import { api, ask } from '../../../api/client';
import { ExportLinks } from '../../../ui/export-links';
import { whole } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';
import { OpenRow } from '../../../ui/open-row';
import { Empty, Shown } from '../../../ui/states';
import { ListPage, useBeside } from '../../../ui/list-page';
import { FilterLine } from '../../../ui/page';
import { TextLink } from '../../../ui/button';
import { DenseTable, GlyphCell } from '../../../ui/table';

/** The sales channels, with one open. */
export function ChannelsPage() {
  const beside = useBeside();
  const { code: open } = useParams();
  const query = useQuery({ queryKey: key('channels'), queryFn: () => ask(api.GET('/api/channels')) });
  return (
    <ListPage title="Channels" width={480}>
      <FilterLine>
        {!beside && <ExportLinks list="channels" />}
        <span />
        <TextLink to="/setup/channels/new">New channel</TextLink>
      </FilterLine>
      <Shown query={query}>
        {(list) =>
          list.length === 0 ? (
            <Empty title="No channels yet">Orders come by a channel: a web shop, a marketplace, the trade, or the phone.</Empty>
          ) : (
            <DenseTable className="w-full">
              <thead>
                <tr>
                  <GlyphCell />
                  <th>Channel</th>
                  <th>Kind</th>
                  <th>Ships from</th>
                  <th className="num">Listings</th>
                </tr>
              </thead>
              <tbody>
                {list.map((c) => (
                  <OpenRow key={c.code} to={`/setup/channels/${c.code}`} open={c.code === open}>
                    <GlyphCell>
                      <Glyph
                        name={c.paused ? 'held' : (c.pollError ?? c.pushError) || c.unread > 0 ? 'blocked' : c.baseUrl ? 'full' : 'empty'}
                        size={12}
                        says={
                          c.paused
                            ? 'left alone'
                            : (c.pollError ?? c.pushError ?? (c.unread > 0 ? 'messages to mend' : c.baseUrl ? 'connected' : 'by hand'))
                        }
                      />
                    </GlyphCell>
                    <td>{c.name}</td>
                    <td className="mid">{c.kind.replace('-', ' ')}</td>
                    <td className="mid">{c.site}</td>
                    <td className="num">{whole(c.listings)}</td>
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
