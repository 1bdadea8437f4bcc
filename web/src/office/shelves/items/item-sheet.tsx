import { useQuery } from '@tanstack/react-query';
import { key } from '../../../api/keys';
import { micro, priceText } from '@vectrum/core/money';
import { Link, useParams, useSearchParams } from 'react-router';
import { api, ask } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { Words } from '../../../ui/field';
import { ItemPicture } from '../../../ui/item-picture';
import { Sheet, ShownSheet, Waybill } from '../../../ui/sheet';
import { ItemAbout } from './item-about';
import { ItemMovements } from './item-movements';
import { ItemStock } from './item-stock';
import { FilterLine, Acts } from '../../../ui/page';
import { ButtonLink } from '../../../ui/button';
import { itemPath } from '../../item-path';

const TRACKED: Readonly<Record<string, string>> = { none: 'nothing', lot: 'lot', 'lot-expiry': 'lot and date', serial: 'serial number' };
const STORED: Readonly<Record<string, string>> = { cold: 'cold zones only', restricted: 'restricted zones only' };
type Tab = 'stock' | 'about' | 'movements';

const costText = (cost: string | null | undefined) => (cost ? priceText(micro(cost)) : 'not known');

/** One item: its stock by site, bin, lot and condition with the sums behind it; what it is; what moved. */
export function ItemSheet() {
  const { sku = '' } = useParams();
  const [params, setParams] = useSearchParams();
  const me = useMe();
  const tab = (params.get('tab') ?? 'stock') as Tab;
  const query = useQuery({
    queryKey: key('item', sku),
    queryFn: () => ask(api.GET('/api/items/{sku}', { params: { path: { sku } } })),
  });
  const canEdit = me.data?.rights.includes('items') === true;
  const back = `/shelves/items${window.location.search.replace(/([?&])tab=\w+&?/, '$1').replace(/[?&]$/, '')}`;
  return (
    <ShownSheet query={query} back={back}>
      {(item) => {
        const base = item.packs.find((p) => p.factor === 1);
        const home = item.sites.find((s) => s.home);
        const flow = [item.rotation === 'fefo' ? 'first to expire goes first' : 'first in goes first', STORED[item.storage]]
          .filter(Boolean)
          .join(', ');
        return (
          <Sheet
            address={`items/${item.sku}`}
            title={item.name}
            about={
              item.lacks.length > 0 ? (
                <span className="stamped">Lacks {item.lacks.join(', ')}</span>
              ) : (
                [item.className, ...item.tags].filter(Boolean).join(', ')
              )
            }
            code={base?.barcodes[0] ?? item.sku}
            back={back}
            tools={me.data?.rights.includes('buy') && <Link to={`/plan/items/${encodeURIComponent(item.sku)}`}>When to buy</Link>}
          >
            <div className="flex gap-4 items-stretch">
              <div className="pt-2">
                <ItemPicture item={item} size={64} />
              </div>
              <div className="flex-1 min-w-0">
                <Waybill
                  cells={[
                    {
                      cap: 'SKU',
                      value: <span className="code">{item.sku}</span>,
                      note: item.kind === 'single' ? item.className : item.kind,
                    },
                    { cap: 'Home', value: home?.home ?? 'none yet', note: home ? home.site : 'give it one by changing the item' },
                    {
                      cap: 'Tracked by',
                      value: TRACKED[item.tracking] ?? item.tracking,
                      note: item.neverHoldsUp ? 'never holds up an order' : flow,
                    },
                    ...(item.cost !== undefined
                      ? [
                          {
                            cap: `Cost of a ${base?.name ?? 'unit'}`,
                            value: costText(item.bookedCost ?? item.cost),
                            note: [
                              item.bookedCost ? 'in the books' : '',
                              item.cost ? `${item.bookedCost ? `${costText(item.cost)} ` : ''}typed` : '',
                              item.labour ? `and ${costText(item.labour)} labour` : '',
                            ]
                              .filter(Boolean)
                              .join(', '),
                          },
                        ]
                      : []),
                  ]}
                />
              </div>
            </div>
            <FilterLine className="mt-4">
              <Words<Tab>
                label="Parts of the sheet"
                value={tab}
                onChange={(v) => setParams((p) => (p.set('tab', v), p), { replace: true })}
                words={[
                  { value: 'stock', says: 'Stock' },
                  { value: 'about', says: item.kind === 'single' ? 'Packs, sites, picture' : 'Packs, parts, picture' },
                  { value: 'movements', says: 'Movements' },
                ]}
              />
            </FilterLine>
            {tab === 'stock' && <ItemStock item={item} />}
            {tab === 'about' && <ItemAbout item={item} canEdit={canEdit} />}
            {tab === 'movements' && <ItemMovements sku={item.sku} />}
            <Acts>
              {canEdit && <ButtonLink to={`${itemPath(item.sku)}/edit`}>Change the item</ButtonLink>}
              <ButtonLink to={`/setup/labels/print?subject=item&codes=${encodeURIComponent(item.sku)}`} data-print>
                Print labels
              </ButtonLink>
            </Acts>
          </Sheet>
        );
      }}
    </ShownSheet>
  );
}
