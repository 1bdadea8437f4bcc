import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { age } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { ListPage } from '../../ui/list-page';
import { OpenRow } from '../../ui/open-row';
import { FilterLine } from '../../ui/page';
import { Empty, Shown } from '../../ui/states';
import { DenseTable, GlyphCell } from '../../ui/table';
import { OrdersWords } from './orders-words';

const STATE_WORDS: Readonly<Record<string, string>> = { waiting: 'waits', 'taken-in': 'taken in', 'set-aside': 'set aside' };
const glyphOf = (m: Dto['ParkedRowDto']) => (m.state === 'waiting' ? 'blocked' : m.state === 'taken-in' ? 'full' : 'held');

/** Messages of channels that cannot be understood: each waits to be mended or set aside, and holds up no other. */
export function UnreadPage() {
  const { id: open } = useParams();
  const query = useQuery({ queryKey: key('unread'), queryFn: () => ask(api.GET('/api/parked-messages')) });
  return (
    <ListPage title="Messages that cannot be understood" width={520}>
      <FilterLine>
        <OrdersWords here="/orders/unread" />
      </FilterLine>
      <Shown query={query}>
        {(list) =>
          list.length === 0 ? (
            <Empty title="Every message was understood">What a channel sends and nobody can read waits here, as it came.</Empty>
          ) : (
            <DenseTable>
              <thead>
                <tr>
                  <td className="w-6" />
                  <th>Channel</th>
                  <th>Their number</th>
                  <th>What is against it</th>
                  <th>State</th>
                  <th className="num">Came</th>
                </tr>
              </thead>
              <tbody>
                {list.map((m) => (
                  <OpenRow key={m.id} to={`/orders/unread/${m.id}`} open={String(m.id) === open} soft={m.state !== 'waiting'}>
                    <GlyphCell>
                      <Glyph name={glyphOf(m)} size={14} says />
                    </GlyphCell>
                    <td>{m.channel}</td>
                    <td className="code">{m.ref}</td>
                    <td className="max-w-[420px] overflow-hidden text-ellipsis">{m.why}</td>
                    <td className="mid">{STATE_WORDS[m.state] ?? m.state}</td>
                    <td className="num mid">{age(m.cameAt)}</td>
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
