import { useQuery } from '@tanstack/react-query';
import { micro, moneyText } from '@vectrum/core/money';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, ask, ifMatch, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { useAct } from '../../api/use-act';
import { Button, TextButton } from '../../ui/button';
import { plural, when } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { BlockHead } from '../../ui/page';
import { ProblemNote, Shown } from '../../ui/states';
import { DenseTable, GlyphCell } from '../../ui/table';
import { PromiseChart } from './promise-chart';
import { SplitDialog } from './split-dialog';

type Way = Dto['OrderWayDto'];
type Sending = Way['sendings'][number];

/** A way in words: from where, and what of it when, where it does not go together. */
export function wayWords({ kind, sendings, fetches }: Pick<Way, 'kind' | 'sendings' | 'fetches'>): string {
  const [first, ...more] = sendings;
  if (!first) return '';
  const part = (s: Sending) => `${plural(s.pieces, 'piece', 'pieces')} from ${s.site}`;
  if (kind === 'split') return `Split: ${sendings.map(part).join(', ')}`;
  if (kind === 'in parts')
    return `In parts: ${plural(first.pieces, 'piece', 'pieces')} ${when(first.leavesAt)}, the rest from ${more[0]?.site ?? first.site}`;
  const from = [...new Set(fetches.map((f) => f.site))].map((site) => {
    const pieces = fetches.filter((f) => f.site === site).reduce((n, f) => n + f.pieces, 0);
    return `${plural(pieces, 'piece', 'pieces')} from ${site}`;
  });
  return from.length > 0 ? `Fetch ${from.join(', ')}, then all of it from ${first.site}` : `All of it from ${first.site}`;
}

/** When an order that waits could go whole, by what is there, what is to come and all that is promised to others; one can be promised. */
export function OrderWays({ order }: { order: Pick<Dto['OrderDto'], 'code' | 'version' | 'promisedAt' | 'siteId' | 'lines'> }) {
  const [shows, setShows] = useState<string | null>(null);
  const [splits, setSplits] = useState<Sending>();
  const short = order.lines.filter((l) => l.sku !== null && l.reserved < l.wanted);
  const me = useMe();
  const query = useQuery({
    queryKey: key('order-ways', order.code),
    queryFn: () => ask(api.GET('/api/orders/{code}/ways', { params: { path: { code: order.code } } })),
  });
  const promise = useAct({
    act: (at: string, once) =>
      ask(
        api.POST('/api/orders/{code}/promise', {
          params: { path: { code: order.code } },
          headers: { ...once, ...ifMatch(order.version) },
          body: { at },
        }),
      ),
  });
  const fetch = useAct({
    act: (at: string, once) =>
      ask(
        api.POST('/api/orders/{code}/fetch', {
          params: { path: { code: order.code } },
          headers: { ...once, ...ifMatch(order.version) },
          body: { at },
        }),
      ),
  });
  const may = me.data?.rights.includes('order-desk') ?? false;
  return (
    <section aria-label="How it can go">
      <BlockHead className="mt-4">
        <h2>How it can go</h2>
        <span className="flex gap-3">
          {short.slice(0, 3).map((l) => (
            <TextButton key={l.line} type="button" aria-expanded={shows === l.sku} onClick={() => setShows(shows === l.sku ? null : l.sku)}>
              {l.name} over time
            </TextButton>
          ))}
        </span>
      </BlockHead>
      {shows !== null && <PromiseChart sku={shows} siteId={order.siteId} />}
      <ProblemNote problem={promise.error ?? fetch.error} />
      {fetch.data && (
        <p role="status" className="font-semibold py-1">
          <Glyph name="half" /> Asked for:{' '}
          {fetch.data.transfers.map((t) => (
            <Link key={t} to={`/shelves/transfers/${t}`} className="code mr-2">
              {t}
            </Link>
          ))}
        </p>
      )}
      <Shown query={query}>
        {(ways) =>
          ways.length === 0 ? (
            <p className="mid py-2">Nothing that is here or on order makes it whole. Buy what it lacks, or ask the customer.</p>
          ) : (
            <DenseTable>
              <tbody>
                {ways.map((w, i) => (
                  <tr key={i}>
                    <GlyphCell>
                      <Glyph name={w.late ? 'held' : 'full'} size={13} says={w.late ? 'later than promised' : 'in time'} />
                    </GlyphCell>
                    <td className="whitespace-normal">
                      {wayWords(w)}
                      {w.waitsFor.length > 0 && (
                        <span className="note">
                          waits for{' '}
                          {w.waitsFor.map(({ code, kind }) => (
                            <Link
                              key={code}
                              to={kind === 'order' ? `/inbound/${code}` : `/shelves/transfers/${code}`}
                              className="code mr-2"
                            >
                              {code}
                            </Link>
                          ))}
                        </span>
                      )}
                    </td>
                    <td className={w.late ? 'stamped' : ''}>{when(w.wholeAt)}</td>
                    <td className="num mid">{w.carriage !== null && <>about {moneyText(micro(w.carriage), me.data?.homeCurrency)}</>}</td>
                    <td className="num">
                      {may && w.kind === 'split' && (
                        <Button type="button" onClick={() => setSplits(w.sendings.find((x) => x.siteId !== order.siteId))}>
                          Split it so
                        </Button>
                      )}
                      {may && w.kind === 'fetched' && (
                        <Button type="button" disabled={fetch.isPending} onClick={() => fetch.mutate(w.wholeAt)}>
                          Have it fetched
                        </Button>
                      )}
                      {may && w.kind === 'together' && w.atOrdersSite && w.wholeAt !== order.promisedAt && (
                        <Button type="button" disabled={promise.isPending} onClick={() => promise.mutate(w.wholeAt)}>
                          Promise it for then
                        </Button>
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
      {splits && <SplitDialog order={order} from={splits} onClose={() => setSplits(undefined)} />}
    </section>
  );
}
