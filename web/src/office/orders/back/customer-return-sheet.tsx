import { useQuery } from '@tanstack/react-query';
import { RETURN_REASONS } from '@vectrum/core/customer-returns';
import { micro, moneyText } from '@vectrum/core/money';
import { Link, useParams } from 'react-router';
import { api, ask, type Dto } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe } from '../../../api/queries';
import { day, when } from '../../../ui/format';
import { Picture } from '../../../ui/picture';
import { Sheet, ShownSheet, Waybill } from '../../../ui/sheet';
import { LinesTable, PictureCell } from '../../../ui/table';
import { ReturnActs } from './return-acts';
import { pieceWords, stateWords, wishWords } from './return-words';
import { TornLine } from './torn-line';

type Return = Dto['CustomerReturnDto'];
const BACK = '/orders/returns';
const TOLD: Readonly<Record<Return['toldBy'], string>> = {
  desk: 'by the order desk',
  channel: 'by its channel',
  dock: 'found at the dock',
};

/** One return: the order's lines with what is torn off them, how it came, and what the customer gets. */
export function CustomerReturnSheet() {
  const { code = '' } = useParams();
  const query = useQuery({
    queryKey: key('customer-return', code),
    queryFn: () => ask(api.GET('/api/customer-returns/{code}', { params: { path: { code } } })),
  });
  return (
    <ShownSheet query={query} back={BACK}>
      {(r) => (
        <Sheet
          address={`orders/returns/${r.code}`}
          title={r.customer}
          about={stateWords(r)}
          code={r.code}
          back={BACK}
          print={{ href: `/api/customer-returns/${r.code}/pdf`, says: 'Paper for the parcel' }}
        >
          <Waybill
            cells={[
              {
                cap: 'Order',
                value: r.order ? (
                  <Link to={`/orders/${r.order}`} className="code">
                    {r.order}
                  </Link>
                ) : (
                  'nobody knows'
                ),
                note: [r.channel, r.leftAt ? `left ${day(r.leftAt)}` : ''].filter(Boolean).join(', '),
              },
              {
                cap: 'Announced',
                value: day(r.announcedAt),
                note: [TOLD[r.toldBy], r.channelRef].filter(Boolean).join(', '),
              },
              { cap: 'They wish', value: wishWords(r.wish), note: r.note },
              { cap: 'Here', value: r.cameAt ? when(r.cameAt) : 'not yet', note: r.site },
            ]}
          />
          {r.settledAt && <Settled of={r} />}
          <Lines of={r} />
          <Pictures of={r} />
          <ReturnActs key={r.version} of={r} />
        </Sheet>
      )}
    </ShownSheet>
  );
}

/** What was decided, and where it can be seen in the books. */
function Settled({ of: r }: { of: Return }) {
  const mayOpen = useMe().data?.rights.includes('invoices') ?? false;
  return (
    <p className="mt-3 border-l-4 border-ink pl-3 py-1 bg-shade">
      <span className="note">
        {r.settledAt && when(r.settledAt)} by {r.settledBy}
      </span>
      <b className="block">
        {r.state === 'called-off' ? 'Called off' : stateWords(r).replace(/^./, (c) => c.toUpperCase())}
        {r.amount && `, ${moneyText(micro(r.amount), r.currency)}`}
        {r.settledWhy && `: ${r.settledWhy}`}
      </b>
      {r.credits.map((code) => (
        <span key={code} className="code mr-3">
          {mayOpen ? <Link to={`/books/invoices/${code}`}>{code}</Link> : code}
        </span>
      ))}
      {r.exchangeOrder && (
        <Link to={`/orders/${r.exchangeOrder}`} className="code">
          {r.exchangeOrder}
        </Link>
      )}
      {r.wentWith}
      {r.settledAs === 'refund' && r.credits.length === 0 && <span className="note">None of it was invoiced, and none of it will be</span>}
    </p>
  );
}

function Lines({ of: r }: { of: Return }) {
  const most = Math.max(1, ...r.goodsBack.map((l) => Math.max(l.leftUnits, l.backUnits)));
  return (
    <LinesTable>
      <thead>
        <tr>
          <td />
          <th>Went with the order</th>
          <th>Torn off</th>
          <th>What became of it</th>
        </tr>
      </thead>
      <tbody>
        {r.goodsBack.map((l) => (
          <tr key={`${l.orderLine}/${l.sku}`} className={l.reason === null ? 'soft' : ''}>
            <PictureCell>
              <Picture name={l.picture} size={30} />
            </PictureCell>
            <td>
              <b>{l.name}</b>
              <span className="note">{[l.reason ? RETURN_REASONS[l.reason].says : '', l.note].filter(Boolean).join(': ')}</span>
            </td>
            <td>
              <TornLine left={l.leftUnits} announced={l.announcedUnits} back={l.backUnits} most={most} says={tornWords(l)} />
              <span className="note">{tornWords(l)}</span>
            </td>
            <td>
              {l.pieces.map((p) => (
                <span key={p.id} className={p.undone ? 'block line-through mid' : 'block'}>
                  <b>{p.words}</b> {pieceWords(p)}
                  <span className="note">
                    {[p.lot && `lot ${p.lot}`, p.number && `number ${p.number}`, p.note, `${p.by}, ${when(p.at)}`]
                      .filter(Boolean)
                      .join(', ')}
                  </span>
                </span>
              ))}
            </td>
          </tr>
        ))}
      </tbody>
    </LinesTable>
  );
}

function tornWords(l: Return['goodsBack'][number]): string {
  const left = l.left === '' ? '' : `${l.left} sent`;
  const announced = l.announced === '' ? '' : `${l.announced} announced`;
  return [left, announced, l.back === '' ? 'none back' : `${l.back} back`].filter(Boolean).join(', ');
}

function Pictures({ of: r }: { of: Return }) {
  if (r.pictures.length === 0) return null;
  return (
    <div className="flex flex-wrap gap-2 mt-3">
      {r.pictures.map((id, i) => (
        <a key={id} href={`/api/customer-returns/${r.code}/pictures/${id}`} target="_blank" rel="noreferrer">
          <img
            src={`/api/customer-returns/${r.code}/pictures/${id}`}
            alt={`Picture ${i + 1} of what came back`}
            className="h-[96px] w-[96px] object-cover border border-rule"
          />
        </a>
      ))}
    </div>
  );
}
