import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { useAct } from '../../api/use-act';
import { useAsked } from '../../ui/asked';
import { Button, TextButton } from '../../ui/button';
import { day, plural, when, whole } from '../../ui/format';
import { Input } from '../../ui/input';
import { BlockHead, Page, Said, Sentence } from '../../ui/page';
import { Waybill } from '../../ui/sheet';
import { Empty, ProblemNote, Shown } from '../../ui/states';
import { ChooseCell, LinesTable } from '../../ui/table';
import { itemPath } from '../item-path';
import { LotCorrection } from './lot-correction';
import { ShelvesWords } from './shelves-words';
import { traceHref } from './trace-href';

type Trace = Dto['TraceDto'];
const SAYS: Readonly<Record<string, string>> = {
  supplier: 'from a supplier',
  customer: 'back from a customer',
  assembly: 'built here',
  count: 'found by a count',
  opening: 'was there when the books began',
  other: 'from elsewhere',
};
const USED: Readonly<Record<string, string>> = {
  scrap: 'scrapped',
  'own-use': 'used by the house',
  assembly: 'built into something',
  supplier: 'sent back to its supplier',
  count: 'not found by a count',
  'in-transit': 'sent to another site',
};

/** Where a lot or number came from, where it is, and who got it; held everywhere at once where something is wrong with it. */
export function TracePage() {
  const { asked, put } = useAsked();
  const [sku, lot, q] = [asked('sku'), asked('lot'), asked('q')];
  return (
    <Page aria-label="Trace">
      <h1 className="sr">Trace</h1>
      <ShelvesWords at="trace" />
      <div className="mt-2 mb-3">
        <Input
          type="search"
          style={{ width: 260 }}
          aria-label="Lot or serial number"
          placeholder="lot or serial number"
          autoFocus={!lot}
          defaultValue={q}
          onChange={(e) => put('q', e.target.value)}
        />
      </div>
      {q ? (
        <Found q={q} />
      ) : sku && lot ? (
        <One sku={sku} lot={lot} />
      ) : (
        <Empty title="Which lot or number?">Type how it begins. It is told where it came from, where it is, and who got it.</Empty>
      )}
    </Page>
  );
}

function Found({ q }: { q: string }) {
  const query = useQuery({
    queryKey: key('trace', 'find', q),
    queryFn: () => ask(api.GET('/api/trace/find', { params: { query: { q } } })),
    placeholderData: (was) => was,
  });
  return (
    <Shown query={query} rows={4}>
      {(found) =>
        found.length === 0 ? (
          <Empty title="No lot or number begins so">
            Look at the label again. Numbers that are scanned only at packing are found by the field at the top.
          </Empty>
        ) : (
          <LinesTable className="max-w-[720px]">
            <thead>
              <tr>
                <th>Lot or number</th>
                <th>Goods</th>
                <th>SKU</th>
              </tr>
            </thead>
            <tbody>
              {found.map((f) => (
                <tr key={`${f.sku}/${f.lot}`}>
                  <td className="code">
                    <Link to={traceHref(f.sku, f.lot)}>{f.lot}</Link>
                  </td>
                  <td>{f.item}</td>
                  <td className="code">{f.sku}</td>
                </tr>
              ))}
            </tbody>
          </LinesTable>
        )
      }
    </Shown>
  );
}

function One({ sku, lot }: { sku: string; lot: string }) {
  const query = useQuery({
    queryKey: key('trace', sku, lot),
    queryFn: () => ask(api.GET('/api/trace', { params: { query: { sku, lot } } })),
  });
  return (
    <Shown query={query}>
      {(t) => {
        const there = t.where.reduce((n, w) => n + w.units, 0);
        const out = t.went.reduce((n, w) => n + w.units - w.back, 0);
        const open = t.recalls.find((r) => r.freedAt === null);
        return (
          <>
            <div className="flex flex-wrap items-baseline gap-x-4">
              <h2>
                <Link to={itemPath(t.sku)}>{t.item}</Link>, {t.lot}
              </h2>
              <span className="mid">{plural(t.movements, 'movement', 'movements')}</span>
              <a
                href={`/api/trace/epcis.json?sku=${encodeURIComponent(sku)}&lot=${encodeURIComponent(lot)}`}
                download={`${t.lot}.epcis.json`}
              >
                As events (EPCIS)
              </a>
            </div>
            <Sentence className="mt-2">
              {whole(there)} {there === 1 ? 'is' : 'are'} here, {whole(out)} {out === 1 ? 'is' : 'are'} with customers
              {open ? `. Held everywhere: ${open.reason}` : ''}
            </Sentence>
            <Waybill
              cells={[
                { cap: 'Came first', value: t.firstOn ? day(t.firstOn) : 'not known' },
                { cap: 'Best before', value: t.expiresOn ? day(t.expiresOn) : 'no date' },
                { cap: 'Held', value: open ? when(open.at) : 'no', note: open?.by ?? '' },
                { cap: 'Customers told', value: open?.toldAt ? when(open.toldAt) : open ? 'not yet' : '' },
              ]}
            />
            <Hold trace={t} />
            <LotCorrection key={`${t.sku} ${t.lot}`} trace={t} />
            <Where trace={t} />
            <Went key={t.lotId} trace={t} canTell={open !== undefined} />
            <Came trace={t} />
          </>
        );
      }}
    </Shown>
  );
}

/** Held everywhere at once, for a reason; or free again. */
function Hold({ trace: t }: { trace: Trace }) {
  const rights = useMe().data?.rights ?? [];
  const [reason, setReason] = useState('');
  const query = { sku: t.sku, lot: t.lot };
  const hold = useAct({
    act: (_: void, once) => ask(api.POST('/api/trace/hold', { params: { query }, body: { reason }, headers: once })),
    onDone: () => setReason(''),
  });
  const open = t.recalls.find((r) => r.freedAt === null);
  const free = useAct({
    act: (_: void, once) => ask(api.POST('/api/trace/free', { params: { query }, headers: { ...once, ...ifMatch(open?.version ?? 0) } })),
  });
  const mayHold = rights.includes('inspect') || rights.includes('settle-counts');
  return (
    <>
      <form
        className="flex flex-wrap gap-3 items-center mt-3"
        onSubmit={(e) => {
          e.preventDefault();
          hold.mutate();
        }}
      >
        {mayHold && !open && (
          <>
            <Input
              className="w-[320px] max-w-full"
              aria-label="Why it is held"
              placeholder="what is wrong with it"
              maxLength={200}
              value={reason}
              onChange={(e) => setReason(e.target.value)}
            />
            <Button type="submit" disabled={reason.trim().length < 3 || hold.isPending}>
              Hold it everywhere
            </Button>
          </>
        )}
        {open && rights.includes('settle-counts') && (
          <TextButton type="button" disabled={free.isPending} onClick={() => free.mutate()}>
            Nothing is wrong with it: free it again
          </TextButton>
        )}
      </form>
      {hold.data && (
        <Said role="status">
          {whole(hold.data.units)} held.
          {hold.data.orders.length > 0 && ` In totes or parcels of ${hold.data.orders.join(', ')}: hold these orders too.`}
          {hold.data.failed.length > 0 && ` Not held: ${hold.data.failed.join('. ')}`}
        </Said>
      )}
      <ProblemNote problem={hold.error ?? free.error} />
    </>
  );
}

function Where({ trace: t }: { trace: Trace }) {
  return (
    <>
      <BlockHead className="mt-4">
        <h2>Where it is</h2>
        {t.where.length === 0 && <span className="note">nowhere at your sites</span>}
      </BlockHead>
      {t.where.length > 0 && (
        <LinesTable aria-label="Where it is">
          <thead>
            <tr>
              <th>Place</th>
              <th>Site</th>
              <th>Condition</th>
              <th>For</th>
              <th className="num">Units</th>
            </tr>
          </thead>
          <tbody>
            {t.where.map((w) => (
              <tr key={`${w.place}/${w.condition}`}>
                <td className="code">{w.order === null ? <Link to={`/shelves/places/${w.place}`}>{w.place}</Link> : w.place}</td>
                <td>{w.site}</td>
                <td className={w.condition === 'good' ? 'mid' : 'stamped'}>{w.condition.replace('-', ' ')}</td>
                <td className="code">{w.order && <Link to={`/orders/${w.order}`}>{w.order}</Link>}</td>
                <td className="num strong">{whole(w.units)}</td>
              </tr>
            ))}
          </tbody>
        </LinesTable>
      )}
    </>
  );
}

function Went({ trace: t, canTell }: { trace: Trace; canTell: boolean }) {
  const rights = useMe().data?.rights ?? [];
  const orders = [...new Set(t.went.map((w) => w.order))];
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set(orders));
  const tell = useAct({
    act: (list: string[], once) =>
      ask(api.POST('/api/trace/tell', { params: { query: { sku: t.sku, lot: t.lot } }, body: { orders: list }, headers: once })),
  });
  const mayTell = canTell && (rights.includes('settle-counts') || rights.includes('order-desk'));
  const wanted = orders.filter((o) => chosen.has(o));
  return (
    <>
      <BlockHead className="mt-4">
        <h2>Who got it</h2>
        <span className="note">{t.went.length === 0 ? 'nobody' : plural(orders.length, 'order', 'orders')}</span>
        {mayTell && orders.length > 0 && (
          <Button type="button" disabled={wanted.length === 0 || tell.isPending} onClick={() => tell.mutate(wanted)}>
            Write to {plural(wanted.length, 'customer', 'customers')}
          </Button>
        )}
      </BlockHead>
      {tell.data && (
        <Said role="status">
          {plural(tell.data.written, 'letter is', 'letters are')} on the way
          {tell.data.toRing > 0 && `, ${tell.data.toRing} without a mail address are to be rung`}
        </Said>
      )}
      <ProblemNote problem={tell.error} />
      {t.went.length > 0 && (
        <LinesTable aria-label="Who got it">
          <thead>
            <tr>
              {mayTell && (
                <ChooseCell
                  says="All orders"
                  checked={wanted.length === orders.length}
                  onChoose={(on) => setChosen(new Set(on ? orders : []))}
                />
              )}
              <th>Customer</th>
              <th>Order</th>
              <th>Parcel</th>
              <th>Left</th>
              <th className="num">Units</th>
              <th className="num">Back</th>
            </tr>
          </thead>
          <tbody>
            {t.went.map((w, i) => (
              <tr key={`${w.order}/${i}`}>
                {mayTell && (
                  <ChooseCell
                    says={`${w.customer}, ${w.order}`}
                    checked={chosen.has(w.order)}
                    onChoose={(on) => setChosen(on ? new Set([...chosen, w.order]) : new Set([...chosen].filter((o) => o !== w.order)))}
                  />
                )}
                <td>
                  <b>{w.customer}</b>
                  <span className="note">{[w.email, w.phone].filter(Boolean).join(', ') || 'no mail, no telephone'}</span>
                </td>
                <td className="code">
                  <Link to={`/orders/${w.order}`}>{w.order}</Link>
                </td>
                <td className="code">
                  {w.parcel}
                  {w.tracking && <span className="note">{w.tracking}</span>}
                </td>
                <td>{when(w.at)}</td>
                <td className="num strong">{whole(w.units)}</td>
                <td className="num">{w.back > 0 ? whole(w.back) : ''}</td>
              </tr>
            ))}
          </tbody>
        </LinesTable>
      )}
    </>
  );
}

/** Where it came from, what it was built from or into, and what else became of it. */
function Came({ trace: t }: { trace: Trace }) {
  const kin = (list: Trace['madeFrom'], head: string) =>
    list.length > 0 && (
      <>
        <BlockHead className="mt-4">
          <h2>{head}</h2>
        </BlockHead>
        {list.map((k) => (
          <p key={`${k.document}/${k.sku}/${k.lot ?? ''}`}>
            {whole(k.units)} of {k.item}
            {k.lot && (
              <>
                , <Link to={traceHref(k.sku, k.lot)}>{k.lot}</Link>
              </>
            )}{' '}
            <span className="mid code">{k.document}</span>
          </p>
        ))}
      </>
    );
  return (
    <>
      <BlockHead className="mt-4">
        <h2>Where it came from</h2>
      </BlockHead>
      <LinesTable aria-label="Where it came from">
        <thead>
          <tr>
            <th>How</th>
            <th>From</th>
            <th>Paper</th>
            <th>When</th>
            <th>By</th>
            <th className="num">Units</th>
          </tr>
        </thead>
        <tbody>
          {t.origins.map((o, i) => (
            <tr key={i}>
              <td>{SAYS[o.kind]}</td>
              <td>{o.who}</td>
              <td className="code">{o.document}</td>
              <td>{when(o.at)}</td>
              <td>{o.by}</td>
              <td className="num strong">{whole(o.units)}</td>
            </tr>
          ))}
          {t.used.map((u, i) => (
            <tr key={`u${i}`}>
              <td>{USED[u.kind]}</td>
              <td className="mid">{u.why}</td>
              <td className="code">{u.document}</td>
              <td>{when(u.at)}</td>
              <td>{u.by}</td>
              <td className="num strong">−{whole(u.units)}</td>
            </tr>
          ))}
        </tbody>
      </LinesTable>
      {kin(t.madeFrom, 'Built from')}
      {kin(t.madeInto, 'Built into')}
    </>
  );
}
