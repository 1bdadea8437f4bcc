import { useQuery } from '@tanstack/react-query';
import { micro, moneyText } from '@vectrum/core/money';
import { lotWords, spell } from '@vectrum/core/quantity';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe } from '../../../api/queries';
import { useAct } from '../../../api/use-act';
import { useBook } from '../../../flow/book';
import { Button, ButtonLink, TextButton } from '../../../ui/button';
import { day, when } from '../../../ui/format';
import { Glyph, progressGlyph } from '../../../ui/glyph';
import { Input, Select } from '../../../ui/input';
import { Acts, ActsForm, BlockHead } from '../../../ui/page';
import { Sheet, ShownSheet, Waybill } from '../../../ui/sheet';
import { ProblemNote } from '../../../ui/states';
import { GlyphCell, LinesTable } from '../../../ui/table';
import { itemPath } from '../../item-path';
import { TransferParcels } from './transfer-parcels';
import { transferState } from './transfer-words';

type Transfer = Dto['TransferDto'];

/** One transfer: what was asked for, what is on the road, what came, and what is missing. */
export function TransferSheet() {
  const { code = '' } = useParams();
  const query = useQuery({
    queryKey: key('transfer', code),
    queryFn: () => ask(api.GET('/api/transfers/{code}', { params: { path: { code } } })),
    // A label that was asked for comes by itself.
    refetchInterval: (query) => (query.state.data?.parcels.some((p) => p.state === 'label-asked') ? 2_000 : false),
  });
  return (
    <ShownSheet query={query} back="/shelves/transfers">
      {(t) => (
        <Sheet
          address={`shelves/transfers/${t.code}`}
          title={`${t.fromSite} to ${t.toSite}`}
          about={transferState(t)}
          code={t.code}
          back="/shelves/transfers"
          print={{ href: `/api/transfers/${t.code}/pdf`, says: 'Paper that goes along' }}
        >
          <Waybill
            cells={[
              { cap: 'Asked for', value: when(t.madeAt), note: t.madeBy ?? '' },
              { cap: 'Wanted', value: t.expectedOn ? day(t.expectedOn) : 'as soon as may be', note: t.note },
              {
                cap: 'Sent',
                value: t.sentAt ? when(t.sentAt) : 'not yet',
                note: [t.carrier, t.tracking, t.sentBy].filter(Boolean).join(', '),
              },
              {
                cap: 'Taken in',
                value: t.receivedAt ? when(t.receivedAt) : 'not yet',
                note: t.missing > 0 && t.receivedAt ? `${t.missing} units missing` : '',
              },
            ]}
          />
          {t.goods.length > 0 ? <OnRoad transfer={t} /> : <Asked transfer={t} />}
          <TransferParcels key={`parcels ${t.state}`} transfer={t} />
          <TransferActs key={t.state} transfer={t} />
        </Sheet>
      )}
    </ShownSheet>
  );
}

function TransferActs({ transfer: t }: { transfer: Transfer }) {
  const rights = useMe().data?.rights ?? [];
  const [sending, setSending] = useState(false);
  const [carrier, setCarrier] = useState(() => [...new Set(t.parcels.flatMap((p) => p.carrier ?? []))].join(', '));
  const [tracking, setTracking] = useState(() => t.parcels.find((p) => p.tracking)?.tracking ?? '');
  const params = { path: { code: t.code } };
  const send = useAct({
    act: (_: void, once) =>
      ask(api.POST('/api/transfers/{code}/send', { params, body: { carrier, tracking }, headers: { ...once, ...ifMatch(t.version) } })),
  });
  const cancel = useAct({
    act: (_: void, once) => ask(api.POST('/api/transfers/{code}/cancel', { params, headers: { ...once, ...ifMatch(t.version) } })),
  });
  const isEarly = t.state === 'requested' || t.state === 'gathering';
  const isComing = t.state === 'on-the-road' || t.state === 'arriving';
  return (
    <>
      {sending ? (
        <ActsForm
          onSubmit={(e) => {
            e.preventDefault();
            send.mutate();
          }}
        >
          <Input
            autoFocus
            aria-label="Carrier"
            placeholder="carrier, or own van"
            maxLength={60}
            value={carrier}
            onChange={(e) => setCarrier(e.target.value)}
          />
          <Input
            aria-label="Tracking number"
            placeholder="its number"
            maxLength={60}
            value={tracking}
            onChange={(e) => setTracking(e.target.value)}
          />
          <Button type="submit" next disabled={send.isPending}>
            It is gone
          </Button>
          <TextButton type="button" onClick={() => setSending(false)}>
            Back
          </TextButton>
        </ActsForm>
      ) : (
        <Acts>
          {isEarly && rights.includes('store') && <ButtonLink to={`/floor/gather/${t.code}`}>Gather on the phone</ButtonLink>}
          {t.state === 'gathering' && rights.includes('store') && (
            <Button type="button" next onClick={() => setSending(true)}>
              Send it off
            </Button>
          )}
          {isComing && rights.includes('receive') && (
            <ButtonLink to={`/floor/take-in/${t.code}`} next>
              Take it in on the phone
            </ButtonLink>
          )}
          {isEarly && (
            <TextButton type="button" disabled={cancel.isPending} onClick={() => cancel.mutate()}>
              {t.state === 'gathering' ? 'Call it off, and put the goods back' : 'Call it off'}
            </TextButton>
          )}
        </Acts>
      )}
      <ProblemNote problem={send.error ?? cancel.error} />
    </>
  );
}

function Asked({ transfer: t }: { transfer: Transfer }) {
  const book = useBook(t.fromSiteId);
  const units = (itemId: number, n: number) => spell(n, book.data?.items[itemId]?.packs ?? []);
  return (
    <LinesTable aria-label="What was asked for">
      <thead>
        <tr>
          <GlyphCell />
          <th>Goods</th>
          <th className="num">Asked for</th>
          <th className="num">Gathered</th>
          <th className="num">Free here</th>
          <th className="num">Free there</th>
        </tr>
      </thead>
      <tbody>
        {t.lineRows.map((l) => (
          <tr key={l.lineId}>
            <GlyphCell>
              <Glyph name={progressGlyph(l.gathered, l.units)} size={14} says />
            </GlyphCell>
            <td>
              <Link to={itemPath(l.sku)}>
                <b>{l.item}</b>
              </Link>
              <span className="note code">{l.sku}</span>
            </td>
            <td className="num">{units(l.itemId, l.units)}</td>
            <td className="num">{l.gathered > 0 ? units(l.itemId, l.gathered) : ''}</td>
            <td className={`num ${l.spare + l.gathered < l.units ? 'stamped' : ''}`}>{l.spare}</td>
            <td className="num">{l.thereFree}</td>
          </tr>
        ))}
      </tbody>
    </LinesTable>
  );
}

function OnRoad({ transfer: t }: { transfer: Transfer }) {
  const me = useMe();
  const book = useBook(t.fromSiteId);
  const maySettle = t.state === 'received' && (me.data?.rights.includes('settle-counts') ?? false);
  return (
    <>
      <BlockHead>
        <h2>What was sent</h2>
      </BlockHead>
      <LinesTable aria-label="What was sent">
        <thead>
          <tr>
            <GlyphCell />
            <th>Goods</th>
            <th className="num">Sent</th>
            <th className="num">In</th>
            <th className="num">{t.state === 'received' ? 'Missing' : 'On the road'}</th>
            {me.data?.seesCosts && <th className="num">Worth</th>}
          </tr>
        </thead>
        <tbody>
          {t.goods.map((g) => {
            const item = book.data?.items[g.itemId];
            const units = (n: number) => spell(n, item?.packs ?? []);
            return (
              <tr key={g.goodsId}>
                <GlyphCell>
                  <Glyph name={g.missing > 0 && t.state === 'received' ? 'blocked' : progressGlyph(g.received, g.sent)} size={14} says />
                </GlyphCell>
                <td>
                  <Link to={itemPath(g.sku)}>
                    <b>{g.item}</b>
                  </Link>
                  <span className="note">{lotWords(item, g.lot)}</span>
                  {g.owes && (
                    <span className="note">
                      {units(g.lost)} settled, {g.owes === 'nobody' ? 'nobody answers for it' : `the ${g.owes} answers for it`}:{' '}
                      {g.settledNote}
                    </span>
                  )}
                  {maySettle && g.missing > 0 && <Settle transfer={t} goodsId={g.goodsId} words={units(g.missing)} />}
                </td>
                <td className="num">{units(g.sent)}</td>
                <td className="num">
                  {g.received > 0 ? units(g.received) : ''}
                  {g.damaged > 0 && <span className="note">{units(g.damaged)} damaged</span>}
                </td>
                <td className={`num ${t.state === 'received' && g.missing > 0 ? 'stamped' : ''}`}>
                  {g.missing > 0 ? units(g.missing) : ''}
                </td>
                {me.data?.seesCosts && <td className="num">{g.value === null ? '' : moneyText(micro(g.value), me.data.homeCurrency)}</td>}
              </tr>
            );
          })}
        </tbody>
      </LinesTable>
    </>
  );
}

const OWES: readonly { value: Dto['SettleMissingDto']['owes']; says: string }[] = [
  { value: 'carrier', says: 'the carrier answers for it' },
  { value: 'sender', says: 'the site that sent it answers for it' },
  { value: 'receiver', says: 'the site that took it in answers for it' },
  { value: 'nobody', says: 'nobody answers for it' },
];

/** What became of goods that were sent and did not come. */
function Settle({ transfer: t, goodsId, words }: { transfer: Transfer; goodsId: number; words: string }) {
  const [owes, setOwes] = useState<Dto['SettleMissingDto']['owes']>('carrier');
  const [note, setNote] = useState('');
  const settle = useAct({
    act: (neverLeft: boolean, once) =>
      ask(
        api.POST('/api/transfers/{code}/settle', {
          params: { path: { code: t.code } },
          body: { goodsId, owes, neverLeft, note },
          headers: { ...once, ...ifMatch(t.version) },
        }),
      ),
  });
  return (
    <>
      <ActsForm
        onSubmit={(e) => {
          e.preventDefault();
          settle.mutate(false);
        }}
      >
        <Select aria-label="Who answers for it" value={owes} onChange={(e) => setOwes(e.target.value as typeof owes)}>
          {OWES.map((o) => (
            <option key={o.value} value={o.value}>
              {o.says}
            </option>
          ))}
        </Select>
        <Input
          aria-label="What happened"
          placeholder="what happened"
          maxLength={200}
          value={note}
          onChange={(e) => setNote(e.target.value)}
        />
        <Button type="submit" disabled={!note.trim() || settle.isPending}>
          {words} lost
        </Button>
        <TextButton type="button" disabled={!note.trim() || settle.isPending} onClick={() => settle.mutate(true)}>
          They never left {t.fromSite}
        </TextButton>
      </ActsForm>
      <ProblemNote problem={settle.error} />
    </>
  );
}
