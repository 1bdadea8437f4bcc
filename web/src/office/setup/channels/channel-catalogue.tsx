import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { api, ask, type Dto } from '../../../api/client';
import { key } from '../../../api/keys';
import { useAct } from '../../../api/use-act';
import { Button } from '../../../ui/button';
import { plural } from '../../../ui/format';
import { Input } from '../../../ui/input';
import { Acts } from '../../../ui/page';
import { Sheet, ShownSheet } from '../../../ui/sheet';
import { Empty, ProblemNote } from '../../../ui/states';
import { ChooseCell, DenseTable } from '../../../ui/table';

type Offer = Dto['OfferDto'];
const BY: Readonly<Record<string, string>> = {
  linked: 'linked already',
  barcode: 'the same barcode',
  sku: 'the same code',
  name: 'the same name',
  new: 'an item is made of it',
};

/** What a channel offers, and what each of it would be linked to: looked at and mended before anything is changed. */
export function ChannelCatalogue() {
  const { code = '' } = useParams();
  const query = useQuery({
    queryKey: key('offers', code),
    queryFn: () => ask(api.GET('/api/channels/{code}/catalogue', { params: { path: { code } } })),
    retry: false,
  });
  return (
    <ShownSheet query={query} back={`/setup/channels/${code}`}>
      {(offers) => <Offers key={offers.length} code={code} offers={offers} />}
    </ShownSheet>
  );
}

function Offers({ code, offers }: { code: string; offers: Offer[] }) {
  const navigate = useNavigate();
  const open = offers.filter((o) => o.by !== 'linked');
  const [taken, setTaken] = useState(() => new Set(open.map((o) => o.channelSku)));
  const [skus, setSkus] = useState<Readonly<Record<string, string>>>(() =>
    Object.fromEntries(open.map((o) => [o.channelSku, o.sku ?? ''])),
  );
  const take = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/channels/{code}/catalogue', {
          params: { path: { code } },
          headers: once,
          body: open
            .filter((o) => taken.has(o.channelSku))
            .map((o) => ({ channelSku: o.channelSku, sku: (skus[o.channelSku] ?? '').trim() })),
        }),
      ),
    onDone: () => navigate(`/setup/channels/${code}`),
  });
  const toggle = (sku: string) => setTaken((now) => new Set(now.has(sku) ? [...now].filter((s) => s !== sku) : [...now, sku]));
  return (
    <Sheet
      address={`channels/${code}/catalogue`}
      title="What the channel offers"
      about={`${offers.length - open.length} of ${plural(offers.length, 'offer', 'offers')} linked`}
      back={`/setup/channels/${code}`}
    >
      {open.length === 0 ? (
        <Empty title="All of it is linked">Nothing that the channel offers is without an item here.</Empty>
      ) : (
        <DenseTable className="w-full">
          <thead>
            <tr>
              <td />
              <th>Its code</th>
              <th>Offered as</th>
              <th>Our SKU</th>
              <th>Because</th>
              <th className="num">Price</th>
            </tr>
          </thead>
          <tbody>
            {open.map((o) => {
              const sku = skus[o.channelSku] ?? '';
              return (
                <tr key={o.channelSku}>
                  <ChooseCell says={`Take ${o.channelSku}`} checked={taken.has(o.channelSku)} onChoose={() => toggle(o.channelSku)} />
                  <td className="code">{o.channelSku}</td>
                  <td className="max-w-[170px] overflow-hidden text-ellipsis">{o.title}</td>
                  <td style={{ width: 150 }}>
                    <Input
                      className="code"
                      aria-label={`Our SKU for ${o.channelSku}`}
                      placeholder="a new item"
                      value={sku}
                      onChange={(e) => setSkus({ ...skus, [o.channelSku]: e.target.value })}
                    />
                  </td>
                  <td className="mid">{sku.trim() === '' ? BY['new'] : sku === o.sku ? (BY[o.by] ?? '') : 'chosen here'}</td>
                  <td className="num">{Number(o.price).toFixed(2)}</td>
                </tr>
              );
            })}
          </tbody>
        </DenseTable>
      )}
      <ProblemNote problem={take.error} />
      <Acts>
        <Button type="button" next disabled={taken.size === 0 || take.isPending} onClick={() => take.mutate()}>
          Take {plural(taken.size, 'offer', 'offers')} over
        </Button>
      </Acts>
    </Sheet>
  );
}
