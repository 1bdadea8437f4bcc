import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../api/use-act';
import { key } from '../../api/keys';
import { micro, priceText } from '@vectrum/core/money';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { age, clock, day, dayWord, plural } from '../../ui/format';
import { Glyph, type GlyphName } from '../../ui/glyph';
import { Picture } from '../../ui/picture';
import { Sheet, ShownSheet, Waybill } from '../../ui/sheet';
import { WhyNumber, WhySum, type WhyTerm } from '../../ui/why';
import { DoorSelect } from './door-select';
import { PictureCell, GlyphCell, LinesTable } from '../../ui/table';
import { Acts } from '../../ui/page';
import { Button, ButtonLink, TextLink } from '../../ui/button';
import { ProblemNote } from '../../ui/states';
import { useAtOnce } from '../../ui/at-once';
import { itemPath } from '../item-path';

type Arrival = Dto['ArrivalDto'];
type Receipt = Dto['ReceiptDto'];

const STATES: Readonly<Record<string, string>> = { announced: 'announced, not here yet', open: 'at the door', closed: 'closed' };
/** What was closed without having stood at the door was waited for in vain. */
const stateOf = (a: Pick<Arrival, 'state' | 'openedAt'>) =>
  a.state === 'closed' && !a.openedAt ? 'does not come' : (STATES[a.state] ?? a.state);
const TAKEN: Readonly<Record<string, string>> = { extra: 'extra line', unordered: 'without an order' };

function glyphOf(r: Receipt): GlyphName {
  if (r.undone) return 'undo';
  return r.condition === 'good' ? 'full' : 'held';
}

function remark(r: Receipt): string {
  return [TAKEN[r.takenAs], r.reason, r.condition === 'damaged' ? 'damaged' : '', r.undone ? 'taken back' : ''].filter(Boolean).join(', ');
}

/** The opened sum of a landed cost: each share, of one unit, with the paper behind it. */
function landedTerms(landed: NonNullable<Receipt['landed']>): WhyTerm[] {
  const parts = landed.parts.map((p, i) => ({
    sign: p.each.startsWith('-') ? '−' : i === 0 ? '' : '+',
    term: p.says,
    units: p.each.replace('-', ''),
    documents: p.document ? [p.document] : [],
  }));
  const total = { sign: '=', term: 'Landed, each', units: landed.each, documents: [] };
  return parts.length > 0
    ? [...parts, total]
    : [{ sign: '', term: 'What the item is known to cost', units: landed.each, documents: [] }, total];
}

function ReceiptRow({ receipt: r }: { receipt: Receipt }) {
  const [why, setWhy] = useState(false);
  const said = remark(r);
  return (
    <>
      <tr className={r.undone ? 'soft' : undefined}>
        <PictureCell>
          <Picture name={r.picture} size={30} />
        </PictureCell>
        <td>
          <b>
            <Link to={itemPath(r.sku)}>{r.name}</Link>
          </b>
          <span className="note code">{r.sku}</span>
        </td>
        <GlyphCell>
          <Glyph name={glyphOf(r)} size={15} says />
        </GlyphCell>
        <td>
          <b>{r.words}</b>
          {said && <span className={`note ${r.condition === 'good' ? '' : 'stamped'}`}>{said}</span>}
          {r.pictured && (
            <a className="note" href={`/api/receipts/${r.id}/picture`} target="_blank" rel="noreferrer">
              picture
            </a>
          )}
        </td>
        <td>
          {r.lot && <span className="code">{r.lot}</span>}
          {r.expires && <span className="note">until {r.expires}</span>}
        </td>
        <td className="code">{r.place}</td>
        <td>
          {r.order ? (
            <Link to={`/inbound/${r.order}`} className="code">
              {r.order}
            </Link>
          ) : (
            'no order'
          )}
          {r.line !== null && <span className="note">line {r.line}</span>}
        </td>
        <td>
          {clock(r.at)} {r.by}
          <span className="note">{r.how ?? ''}</span>
        </td>
        {r.landed && (
          <td className="num">
            <WhyNumber open={why} onToggle={() => setWhy((o) => !o)} label="Why this landed cost">
              {priceText(micro(r.landed.each))}
            </WhyNumber>
          </td>
        )}
      </tr>
      {why && r.landed && (
        <tr>
          <td colSpan={9}>
            <WhySum terms={landedTerms(r.landed)} />
          </td>
        </tr>
      )}
    </>
  );
}

function Receipts({ list, currency }: { list: readonly Receipt[]; currency: string }) {
  if (list.length === 0) return <p className="note mt-4">Nothing of it is booked in yet.</p>;
  return (
    <LinesTable>
      <thead>
        <tr>
          <td />
          <th>Booked in, newest first</th>
          <td />
          <th>How much</th>
          <th>Lot or number</th>
          <th>To</th>
          <th>For</th>
          <th>By</th>
          {list.some((r) => r.landed) && (
            <th className="num">
              Landed,
              <br />
              each {currency}
            </th>
          )}
        </tr>
      </thead>
      <tbody>
        {list.map((r) => (
          <ReceiptRow key={r.id} receipt={r} />
        ))}
      </tbody>
    </LinesTable>
  );
}

function Announced({ list }: { list: Arrival['announced'] }) {
  if (list.length === 0) return null;
  return (
    <LinesTable>
      <thead>
        <tr>
          <th>Pallet, as announced</th>
          <td />
          <th>Goods</th>
          <th>How much</th>
          <th>Lot or number</th>
          <th>For</th>
        </tr>
      </thead>
      <tbody>
        {list.map((g, i) => (
          <tr key={`${g.sscc ?? ''}${g.sku}${i}`}>
            <td className="code">{list[i - 1]?.sscc === g.sscc ? '' : (g.sscc ?? 'loose')}</td>
            <GlyphCell>
              <Glyph name={g.received ? 'full' : 'empty'} size={15} says />
            </GlyphCell>
            <td>
              <b>{g.name}</b>
            </td>
            <td>{g.words}</td>
            <td>
              {g.lot && <span className="code">{g.lot}</span>}
              {g.expires && <span className="note">until {g.expires}</span>}
            </td>
            <td className="code">{g.order ?? ''}</td>
          </tr>
        ))}
      </tbody>
    </LinesTable>
  );
}

function stood(a: Arrival): string {
  if (a.state === 'open' && a.openedAt) return `for ${age(a.openedAt)}`;
  return a.closedAt ? `${day(a.closedAt)} by ${a.closedBy ?? ''}` : '';
}

/** At which dock it is expected, or stands. */
function ArrivalDoor({ of: a, may }: { of: Arrival; may: boolean }) {
  const set = useAct({
    act: (door: string, once) =>
      ask(api.POST('/api/arrivals/{code}/door', { params: { path: { code: a.code } }, body: { door: door || null }, headers: once })),
  });
  const [door, choose] = useAtOnce(a.door ?? '', set.mutateAsync);
  if (!may) return <>{a.door ?? a.site}</>;
  return (
    <span className="flex items-center gap-1">
      at
      <DoorSelect
        siteId={a.siteId}
        aria-label="Door"
        style={{ height: 24, padding: '0 4px', width: 104 }}
        value={door}
        onChange={(e) => choose(e.target.value)}
      />
    </span>
  );
}

/** For what was announced and does not come; the tape takes it back. */
function NotComing({ code }: { code: string }) {
  const act = useAct({
    act: (_: void, once) => ask(api.POST('/api/arrivals/{code}/not-coming', { params: { path: { code } }, headers: once })),
  });
  return (
    <>
      <Button type="button" disabled={act.isPending} onClick={() => act.mutate()}>
        It does not come
      </Button>
      <ProblemNote problem={act.error} />
    </>
  );
}

/** One arrival: its papers, its pallets, and every receipt with who booked it in. */
export function ArrivalSheet() {
  const { code = '' } = useParams();
  const me = useMe();
  const query = useQuery({
    queryKey: key('arrival', code),
    queryFn: () => ask(api.GET('/api/arrivals/{code}', { params: { path: { code } } })),
  });
  return (
    <ShownSheet query={query} back="/inbound/arrivals">
      {(a) => (
        <Sheet
          address={`inbound/arrivals/${a.code}`}
          title={a.supplier}
          about={`Arrival, ${a.orders.length > 0 ? `of ${a.orders.join(', ')}` : 'without an order'}`}
          code={a.code}
          back="/inbound/arrivals"
        >
          <Waybill
            cells={[
              { cap: 'State', value: stateOf(a), note: stood(a) },
              {
                cap: 'Expected',
                value: dayWord(a.expectedOn).replace(/^t/, 'T'),
                note: a.state === 'closed' ? a.site : <ArrivalDoor of={a} may={me.data?.rights.includes('receive') ?? false} />,
              },
              { cap: 'Supplier’s paper', value: a.paper || 'none noted', note: a.advice ? `advice ${a.advice}` : '' },
              { cap: 'Ring', value: a.supplierPhone || 'no number', note: a.supplierEmail },
              { cap: 'Booked in', value: plural(a.receipts.filter((r) => !r.undone).length, 'receipt', 'receipts') },
            ]}
          />
          <Announced list={a.announced} />
          <Receipts list={a.receipts} currency={me.data?.homeCurrency ?? ''} />
          <Acts>
            {a.state !== 'closed' && me.data?.rights.includes('receive') && (
              <ButtonLink to={`/floor/receive/${a.code}`} next>
                Receive it <Glyph name="go" size={13} />
              </ButtonLink>
            )}
            {a.state === 'announced' && me.data?.rights.some((r) => r === 'receive' || r === 'buy') && <NotComing code={a.code} />}
            {a.receipts.length > 0 && me.data?.rights.includes('buy') && (
              <TextLink to={`/inbound/returns/new?arrival=${a.code}`}>Send some of it back</TextLink>
            )}
          </Acts>
        </Sheet>
      )}
    </ShownSheet>
  );
}
