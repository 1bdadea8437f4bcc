import { useQuery } from '@tanstack/react-query';
import { micro, priceText } from '@vectrum/core/money';
import { packName, spell } from '@vectrum/core/quantity';
import { Fragment } from 'react';
import { Link, useParams } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { clock, day, kilos, whole } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Picture } from '../../ui/picture';
import { Sheet, Waybill } from '../../ui/sheet';
import { Shown } from '../../ui/states';
import { useWhy, WhyNumber, WhySum } from '../../ui/why';

type Item = Dto['ItemDto'];

function useSum(sku: string, open: string | null) {
  const [figure = '', siteId = ''] = (open ?? '').split('/');
  return useQuery({
    queryKey: ['why', sku, open],
    queryFn: () => ask(api.GET('/api/items/{sku}/why/{figure}/{siteId}', { params: { path: { sku, figure, siteId } } })),
    enabled: open !== null,
  });
}

function SiteStock({ item }: { item: Item }) {
  const stock = useQuery({
    queryKey: ['stock', item.sku],
    queryFn: () => ask(api.GET('/api/items/{sku}/stock', { params: { path: { sku: item.sku } } })),
  });
  const why = useWhy();
  const sum = useSum(item.sku, why.open);
  return (
    <Shown query={stock} rows={4}>
      {({ sites, bins }) => (
        <>
          <table className="lines">
            <thead>
              <tr>
                <th>Site</th>
                <th className="num">On hand</th>
                <th className="num">Held</th>
                <th className="num">Reserved</th>
                <th className="num">Available</th>
                <th className="num">On order</th>
              </tr>
            </thead>
            <tbody>
              {sites.map((s) => (
                <Fragment key={s.siteId}>
                  <tr>
                    <td>
                      <b>{s.site}</b>
                      <span className="note">{spell(s.onHand, item.packs)}</span>
                    </td>
                    <td className="num">
                      <WhyNumber
                        label="Why this many on hand"
                        open={why.open === `on-hand/${s.siteId}`}
                        onToggle={() => why.toggle(`on-hand/${s.siteId}`)}
                      >
                        {whole(s.onHand)}
                      </WhyNumber>
                    </td>
                    <td className="num mid">{whole(s.held)}</td>
                    <td className="num mid">{whole(s.reserved)}</td>
                    <td className="num">
                      <WhyNumber
                        label="Why this many available"
                        open={why.open === `available/${s.siteId}`}
                        onToggle={() => why.toggle(`available/${s.siteId}`)}
                      >
                        {whole(s.available)}
                      </WhyNumber>
                    </td>
                    <td className="num mid">{whole(s.incoming)}</td>
                  </tr>
                  {why.open?.endsWith(`/${s.siteId}`) && (
                    <tr className="sumrow">
                      <td colSpan={6}>
                        <WhySum terms={sum.data} at={why.open.startsWith('on-hand') ? 420 : 120} />
                      </td>
                    </tr>
                  )}
                </Fragment>
              ))}
            </tbody>
          </table>
          <div className="block-head mt-4">
            <h2>Where it lies</h2>
            <span className="note">{bins.length === 0 ? 'nowhere' : `${bins.length} places`}</span>
          </div>
          <div className="grid gap-x-6" style={{ gridTemplateColumns: 'repeat(2, minmax(0,1fr))' }}>
            {bins.map((b) => (
              <div key={`${b.place}${b.lot}${b.condition}`} className="flex gap-3 items-baseline border-b border-rule py-1">
                <Link to={`/shelves/places/${b.place}`} className="code">
                  {b.place}
                </Link>
                <span className="note">
                  {b.kind.replace('-', ' ')}
                  {b.lot && `, lot ${b.lot}`}
                  {b.expires && `, until ${b.expires}`}
                  {b.condition !== 'good' && `, ${b.condition}`}
                </span>
                <b className="ml-auto">{whole(b.units)}</b>
              </div>
            ))}
          </div>
        </>
      )}
    </Shown>
  );
}

function Movements({ sku }: { sku: string }) {
  const query = useQuery({
    queryKey: ['movements', sku],
    queryFn: () => ask(api.GET('/api/items/{sku}/movements', { params: { path: { sku } } })),
  });
  return (
    <>
      <div className="block-head mt-4">
        <h2>Movements</h2>
        <span className="note">newest first</span>
      </div>
      <Shown query={query} rows={4}>
        {(list) => (
          <table className="dense">
            <tbody>
              {list.slice(0, 12).map((m) => (
                <tr key={m.id}>
                  <td className="mid">
                    {day(m.at)} {clock(m.at)}
                  </td>
                  <td className="num strong">{whole(m.units)}</td>
                  <td>
                    <span className="code">{m.from}</span> <Glyph name="go" size={10} says="to" /> <span className="code">{m.to}</span>
                  </td>
                  <td className="mid">{m.reverses ? 'undone' : m.task}</td>
                  <td className="code">{m.document}</td>
                  <td className="mid">{m.who}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </Shown>
    </>
  );
}

/** One item: its packs and barcodes, stock by site and bin with the sum behind it, what moved. */
export function ItemSheet() {
  const { sku = '' } = useParams();
  const me = useMe();
  const query = useQuery({
    queryKey: ['item', sku],
    queryFn: () => ask(api.GET('/api/items/{sku}', { params: { path: { sku } } })),
  });
  return (
    <Shown query={query}>
      {(item) => {
        const base = item.packs.find((p) => p.factor === 1);
        return (
          <Sheet
            address={`items/${item.sku}`}
            title={item.name}
            about={item.lacks.length > 0 ? <span className="stamped">Lacks {item.lacks.join(', ')}</span> : item.className}
            code={base?.barcodes[0] ?? item.sku}
            back="/shelves/items"
          >
            <div className="flex gap-4 items-stretch">
              <div className="pt-2">
                <Picture name={item.picture} size={64} />
              </div>
              <div className="flex-1 min-w-0">
                <Waybill
                  cells={[
                    { cap: 'SKU', value: <span className="code">{item.sku}</span>, note: item.className },
                    {
                      cap: 'Home',
                      value: item.home ?? 'none yet',
                      note: item.rotation === 'fefo' ? 'first to expire goes first' : 'first in goes first',
                    },
                    {
                      cap: 'Tracked by',
                      value: { none: 'nothing', lot: 'lot', 'lot-expiry': 'lot and date' }[item.tracking] ?? item.tracking,
                      note: item.neverHoldsUp ? 'never holds up an order' : undefined,
                    },
                    ...(item.cost !== undefined
                      ? [
                          {
                            cap: `Cost of a ${base?.name ?? 'unit'}`,
                            value: item.cost ? priceText(micro(item.cost)) : 'not known',
                            note: 'GBP',
                          },
                        ]
                      : []),
                  ]}
                />
              </div>
            </div>
            <table className="lines">
              <thead>
                <tr>
                  <th>Pack unit</th>
                  <th className="num">Weight</th>
                  <th className="num">Size, mm</th>
                  <th>Barcodes</th>
                </tr>
              </thead>
              <tbody>
                {item.packs.map((p) => (
                  <tr key={p.id}>
                    <td>
                      <b>{packName(p, 1)}</b>
                    </td>
                    <td className="num">{p.weightG ? kilos(p.weightG) : ''}</td>
                    <td className="num">{p.lengthMm ? `${p.lengthMm} × ${p.widthMm} × ${p.heightMm}` : ''}</td>
                    <td className="code">{p.barcodes.join('  ') || '–'}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            <SiteStock item={item} />
            <Movements sku={item.sku} />
            {me.data?.rights.includes('items') && (
              <div className="acts">
                <Link to={`/shelves/items/${item.sku}/edit`} className="act">
                  Change the item
                </Link>
              </div>
            )}
          </Sheet>
        );
      }}
    </Shown>
  );
}
