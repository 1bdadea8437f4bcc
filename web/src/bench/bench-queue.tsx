import { useQuery } from '@tanstack/react-query';
import { key } from '../api/keys';
import { Link } from 'react-router';
import { api, ask, at } from '../api/client';
import { useSite } from '../api/queries';
import { kept } from '../flow/kept';
import { age, plural, when } from '../ui/format';
import { Glyph } from '../ui/glyph';
import { Empty, Shown } from '../ui/states';
import { Button } from '../ui/button';
import { BenchSide, BenchList, BenchItem } from '../ui/bench/parts';

/** What waits at the table when no tote is open: scan one, or choose. */
export function BenchQueue({ onOpen }: { onOpen: (code: string) => void }) {
  const { site } = useSite();
  const query = useQuery({
    queryKey: key('bench-queue', site?.id),
    queryFn: () => kept(`bench-page-${site?.id ?? ''}`, () => ask(api.GET('/api/bench/queue', at(site)))),
    enabled: site !== undefined,
  });
  return (
    <BenchSide style={{ gridColumn: '1 / -1', padding: '14px 24px' }}>
      <Shown query={query}>
        {({ rows: list }) =>
          list.length === 0 ? (
            <Empty title="Nothing to pack">
              Totes show here once they are set down.{' '}
              <Link to="/packing" className="underline">
                Back to the office
              </Link>
            </Empty>
          ) : (
            <BenchList>
              {list.map((o, i) => (
                <BenchItem
                  key={o.order}
                  next={i === 0}
                  onClick={() => onOpen(o.order)}
                  style={{ cursor: 'pointer', gridTemplateColumns: '24px 90px 1fr auto auto' }}
                >
                  <i>
                    <Glyph name={o.parked === null ? 'half' : 'held'} size={18} says />
                  </i>
                  <span className={o.tote ? 'code text-[20px]' : 'text-[17px]'}>{o.tote ?? 'shelf'}</span>
                  <div>
                    <b>{o.customer}</b>
                    <span>
                      <span className="code">{o.order}</span>, {plural(o.pieces, 'piece', 'pieces')}
                      {o.note ? ', note to read' : ''}
                      {o.parked !== null ? `, parked${o.parked ? `: ${o.parked}` : ''}` : ''}
                    </span>
                  </div>
                  <span>{o.since ? `waits ${age(o.since)}` : ''}</span>
                  <Button type="button" style={{ height: 44, fontSize: 16 }}>
                    Open, leaves {when(o.leavesAt ?? o.promisedAt)}
                  </Button>
                </BenchItem>
              ))}
            </BenchList>
          )
        }
      </Shown>
    </BenchSide>
  );
}
