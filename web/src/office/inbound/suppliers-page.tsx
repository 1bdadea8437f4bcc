import { useQuery } from '@tanstack/react-query';
import { key } from '../../api/keys';
import { ANY_DAY } from '@vectrum/core/buying';
import { micro, moneyText } from '@vectrum/core/money';
import { packName } from '@vectrum/core/quantity';
import { Link, useParams } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { ExportLinks } from '../../ui/export-links';
import { plural } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { OpenRow } from '../../ui/open-row';
import { Picture } from '../../ui/picture';
import { Sheet, ShownSheet, Waybill } from '../../ui/sheet';
import { Empty, Shown } from '../../ui/states';
import { SecretSection } from '../../ui/secret-section';
import { LookedAt } from './inspection/looked-at';
import { InboundWords } from './inbound-words';
import { Scorecard } from './scorecard';
import { ListPage, useBeside } from '../../ui/list-page';
import { FilterLine, Acts } from '../../ui/page';
import { TextLink, TextAnchor, ButtonLink } from '../../ui/button';
import { DenseTable, LinesTable, PictureCell } from '../../ui/table';
import { MoreRows, useLongList } from '../../ui/long-list';
import { itemPath } from '../item-path';

/** Suppliers, with one open beside the list. */
export function SuppliersPage() {
  const beside = useBeside();
  const { code: open } = useParams();
  const me = useMe();
  const query = useLongList(key('suppliers'), (query) => ask(api.GET('/api/suppliers', { params: { query } })));
  return (
    <ListPage title="Suppliers" width={520}>
      <FilterLine>
        <InboundWords here="suppliers" />
        {!beside && <ExportLinks list="suppliers" />}
        {me.data?.rights.includes('buy') && <TextLink to="/inbound/suppliers/new">New supplier</TextLink>}
      </FilterLine>
      <Shown query={query}>
        {({ rows: list }) =>
          list.length === 0 ? (
            <Empty title="No suppliers yet">Make the first one, then its price list.</Empty>
          ) : (
            <DenseTable>
              <thead>
                <tr>
                  <th>Supplier</th>
                  <th>Code</th>
                  <th>Ring</th>
                  <th className="num">Lead, days</th>
                </tr>
              </thead>
              <tbody>
                {list.map((s) => (
                  <OpenRow key={s.code} to={`/inbound/suppliers/${s.code}`} open={s.code === open}>
                    <td>{s.name}</td>
                    <td className="code">{s.code}</td>
                    <td className="mid">{s.phone}</td>
                    <td className="num">{s.leadDays}</td>
                  </OpenRow>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
      <MoreRows list={query} what={['supplier', 'suppliers']} />
    </ListPage>
  );
}

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

function worksOn(days: string): string {
  if (days === 'YYYYYNN') return 'works Mon to Fri';
  return `works ${daysOf(days)}`;
}
const daysOf = (days: string): string => DAYS.filter((_, i) => days[i] === 'Y').join(', ');

function leastWords(s: Dto['SupplierSheetDto']): string {
  const parts = [
    s.leastValue ? moneyText(micro(s.leastValue), s.currency) : '',
    s.leastUnits === null ? '' : plural(s.leastUnits, 'unit', 'units'),
    s.leastPallets === null ? '' : plural(s.leastPallets, 'pallet', 'pallets'),
  ];
  return parts.filter(Boolean).join(', ') || 'any';
}

/** One supplier: how it trades, whom to ring, how it did, what it sells. */
export function SupplierSheet() {
  const { code = '' } = useParams();
  const me = useMe();
  const query = useQuery({
    queryKey: key('supplier', code),
    queryFn: () => ask(api.GET('/api/suppliers/{code}', { params: { path: { code } } })),
  });
  return (
    <ShownSheet query={query} back="/inbound/suppliers">
      {(s) => (
        <Sheet address={`inbound/suppliers/${s.code}`} title={s.name} back="/inbound/suppliers">
          <Waybill
            cells={[
              { cap: 'Code', value: <span className="code">{s.code}</span> },
              { cap: 'Ring', value: s.phone || 'no number', note: s.email },
              {
                cap: 'Lead time',
                value: `${s.leadDays} days`,
                note: s.scorecard.leadDays === null ? '' : `measured ${s.scorecard.leadDays} d`,
              },
              { cap: 'Terms', value: s.terms || 'none noted', note: `in ${s.currency}` },
              {
                cap: 'Least order',
                value: leastWords(s),
                note: s.orderDays === ANY_DAY ? worksOn(s.workingDays) : `orders ${daysOf(s.orderDays)}`,
              },
            ]}
          />
          {s.contacts.map((c) => (
            <p key={c.name + c.phone} className="mt-2">
              <b>{c.name}</b>
              {c.role && `, ${c.role}`} {c.phone && <TextAnchor href={`tel:${c.phone.replace(/\s/g, '')}`}>{c.phone}</TextAnchor>}{' '}
              {c.email && <TextAnchor href={`mailto:${c.email}`}>{c.email}</TextAnchor>}
            </p>
          ))}
          <LookedAt supplier={s.code} />
          {me.data?.rights.includes('buy') && (
            <SecretSection
              label="Documents from its own system"
              says={
                s.sendsDocuments
                  ? 'Its own system may send answers and despatch advices.'
                  : 'Its answers and despatch advices are taken in by hand.'
              }
              word="key"
              has={s.sendsDocuments}
              give={async (once) =>
                (await ask(api.POST('/api/suppliers/{code}/document-key', { params: { path: { code: s.code } }, headers: once }))).key
              }
              signs="each document"
              address={`/api/suppliers/${s.code}/documents`}
            />
          )}
          <Scorecard card={s.scorecard} stated={s.leadDays} />
          <LinesTable>
            <thead>
              <tr>
                <td />
                <th>Sells</th>
                <th>Their code</th>
                <th>In</th>
                <th className="num">Price</th>
              </tr>
            </thead>
            <tbody>
              {s.items.map((i) => {
                const pack = i.packs.find((p) => p.id === i.packId);
                return (
                  <tr key={i.sku}>
                    <PictureCell>
                      <Picture name={i.picture} size={30} />
                    </PictureCell>
                    <td>
                      <b>
                        <Link to={itemPath(i.sku)}>{i.name}</Link>
                      </b>
                      <span className="note code">{i.sku}</span>
                    </td>
                    <td className="code">{i.supplierSku}</td>
                    <td>{pack && packName(pack)}</td>
                    <td className="num">
                      {i.price ? moneyText(micro(i.price), s.currency) : ''}
                      {i.breaks?.map((b) => (
                        <span key={b.from} className="note">
                          from {b.from}: {moneyText(micro(b.price), s.currency)}
                        </span>
                      ))}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </LinesTable>
          {s.items.length === 0 && <Empty title="Nothing listed yet">Change the supplier to add what it sells.</Empty>}
          {me.data?.rights.includes('buy') && (
            <Acts>
              <ButtonLink next to="/inbound/new">
                Write an order <Glyph name="go" size={13} />
              </ButtonLink>
              <ButtonLink to={`/inbound/suppliers/${s.code}/edit`}>Change</ButtonLink>
            </Acts>
          )}
        </Sheet>
      )}
    </ShownSheet>
  );
}
