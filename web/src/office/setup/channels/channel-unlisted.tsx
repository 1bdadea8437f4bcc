import { useState } from 'react';
import { Link } from 'react-router';
import { api, ask } from '../../../api/client';
import { key } from '../../../api/keys';
import { useAct } from '../../../api/use-act';
import { Button } from '../../../ui/button';
import { plural, whole } from '../../../ui/format';
import { Input } from '../../../ui/input';
import { MoreRows, useLongList } from '../../../ui/long-list';
import { Acts } from '../../../ui/page';
import { Empty, ProblemNote, Shown } from '../../../ui/states';
import { ChooseCell, DenseTable } from '../../../ui/table';
import { itemPath } from '../../item-path';

/** Goods that a channel does not offer, what lies most first; chosen ones are listed under our own SKU, each at a price. */
export function ChannelUnlisted({ channel, may }: { channel: string; may: boolean }) {
  const params = { path: { code: channel } };
  const list = useLongList(key('unlisted', channel), (query) =>
    ask(api.GET('/api/channels/{code}/unlisted', { params: { ...params, query } })),
  );
  /** What was chosen to be listed, with the price of each as it is typed. */
  const [prices, setPrices] = useState<Readonly<Record<string, string>>>({});
  const chosen = Object.entries(prices);
  const take = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/channels/{code}/listings', {
          params,
          headers: once,
          body: chosen.map(([sku, price]) => ({ sku, price: price.trim().replace(',', '.') })),
        }),
      ),
    onDone: () => setPrices({}),
  });
  const choose = (sku: string, price: string, on: boolean) =>
    setPrices(({ [sku]: _, ...others }) => (on ? { ...others, [sku]: price } : others));
  return (
    <Shown query={list}>
      {({ rows }) =>
        rows.length === 0 ? (
          <Empty title="Everything is listed">There are no goods that this channel does not offer.</Empty>
        ) : (
          <>
            <DenseTable className="w-full">
              <thead>
                <tr>
                  {may && <td />}
                  <th>SKU</th>
                  <th>Goods</th>
                  <th className="num">Free</th>
                  <th className="num">Price</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((i) => (
                  <tr key={i.sku}>
                    {may && (
                      <ChooseCell
                        says={`List ${i.sku}`}
                        checked={i.sku in prices}
                        onChoose={(on) => choose(i.sku, i.price ? Number(i.price).toFixed(2) : '', on)}
                      />
                    )}
                    <td className="code">{i.sku}</td>
                    <td className="max-w-[220px] overflow-hidden text-ellipsis">
                      <Link to={itemPath(i.sku)}>{i.name}</Link>
                    </td>
                    <td className="num strong">{whole(i.units)}</td>
                    <td className="num" style={{ width: 110 }}>
                      {i.sku in prices ? (
                        <Input
                          className="num"
                          inputMode="decimal"
                          aria-label={`Price of ${i.sku}`}
                          value={prices[i.sku] ?? ''}
                          onChange={(e) => choose(i.sku, e.target.value, true)}
                        />
                      ) : i.price ? (
                        Number(i.price).toFixed(2)
                      ) : (
                        '–'
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </DenseTable>
            <MoreRows list={list} what={['item', 'items']} />
            <ProblemNote problem={take.error} />
            {may && chosen.length > 0 && (
              <Acts>
                <Button
                  type="button"
                  next
                  disabled={take.isPending || chosen.some(([, price]) => price.trim() === '')}
                  onClick={() => take.mutate()}
                >
                  List {plural(chosen.length, 'item', 'items')}
                </Button>
              </Acts>
            )}
          </>
        )
      }
    </Shown>
  );
}
