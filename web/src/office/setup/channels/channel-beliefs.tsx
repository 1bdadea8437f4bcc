import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../../api/client';
import { key } from '../../../api/keys';
import { useAct } from '../../../api/use-act';
import { Button } from '../../../ui/button';
import { Words } from '../../../ui/field';
import { age, whole } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';
import { ProblemNote, Shown } from '../../../ui/states';
import { DenseTable, GlyphCell } from '../../../ui/table';
import { itemPath } from '../../item-path';

type Belief = Dto['BeliefDto'];
type Show = 'all' | 'wrong' | 'none';

/** Whether a channel believes something else than what is true: what it said last, otherwise what it was told. */
export function isWrong(b: Pick<Belief, 'units' | 'told' | 'believes'>): boolean {
  return (b.believes ?? b.told) !== b.units;
}

/** What a channel believes of each listing beside what is true, how old the belief is, and what mends it. */
export function ChannelBeliefs({ channel, may }: { channel: string; may: boolean }) {
  const [show, setShow] = useState<Show>('all');
  const params = { path: { code: channel } };
  const query = useQuery({ queryKey: key('beliefs', channel), queryFn: () => ask(api.GET('/api/channels/{code}/beliefs', { params })) });
  const asks = useAct({ act: (_: void, once) => ask(api.POST('/api/channels/{code}/beliefs', { params, headers: once })) });
  const repair = useAct({ act: (_: void, once) => ask(api.POST('/api/channels/{code}/repair', { params, headers: once })) });
  const all = query.data ?? [];
  const of: Readonly<Record<Show, Belief[]>> = { all, wrong: all.filter(isWrong), none: all.filter((b) => b.units === 0) };
  return (
    <>
      <div className="flex gap-4 items-center flex-wrap my-2">
        <Words<Show>
          label="Show"
          value={show}
          words={[
            { value: 'all', says: 'All', count: of.all.length },
            { value: 'wrong', says: 'Believes otherwise', count: of.wrong.length },
            { value: 'none', says: 'Nothing to sell', count: of.none.length },
          ]}
          onChange={setShow}
        />
        {may && (
          <span className="flex gap-3 ml-auto">
            <Button type="button" disabled={asks.isPending} onClick={() => asks.mutate()}>
              Ask what it believes
            </Button>
            <Button type="button" disabled={repair.isPending} onClick={() => repair.mutate()}>
              Tell it all anew
            </Button>
          </span>
        )}
      </div>
      <ProblemNote problem={asks.error ?? repair.error} />
      <Shown query={query}>
        {() => (
          <DenseTable className="w-full">
            <thead>
              <tr>
                <GlyphCell />
                <th>Its code</th>
                <th>Goods</th>
                <th className="num">May be sold</th>
                <th className="num">Told</th>
                <th className="num">Believes</th>
                <th>Since</th>
              </tr>
            </thead>
            <tbody>
              {of[show].map((b) => {
                const since = b.believedAt ?? b.toldAt;
                return (
                  <tr key={b.channelSku}>
                    <GlyphCell>
                      <Glyph
                        name={b.due ? 'half' : isWrong(b) ? 'blocked' : 'full'}
                        size={13}
                        says={b.due ? 'to be told' : isWrong(b) ? 'believes otherwise' : 'in step'}
                      />
                    </GlyphCell>
                    <td className="code">{b.channelSku}</td>
                    <td className="max-w-[180px] overflow-hidden text-ellipsis">
                      <Link to={itemPath(b.sku)}>{b.name}</Link>
                    </td>
                    <td className="num strong">{whole(b.units)}</td>
                    <td className="num">{b.told === null ? '–' : whole(b.told)}</td>
                    <td className={`num ${b.believes !== null && b.believes !== b.units ? 'stamped' : ''}`}>
                      {b.believes === null ? '–' : whole(b.believes)}
                    </td>
                    <td className="mid">{since ? age(since) : ''}</td>
                  </tr>
                );
              })}
            </tbody>
          </DenseTable>
        )}
      </Shown>
    </>
  );
}
