import { useQuery } from '@tanstack/react-query';
import { micro, moneyText } from '@vectrum/core/money';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { useAsked } from '../../ui/asked';
import { Words } from '../../ui/field';
import { day, plural, whole } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Page, Sentence } from '../../ui/page';
import { Picture } from '../../ui/picture';
import { Empty, Shown } from '../../ui/states';
import { GlyphCell, LinesTable, PictureCell } from '../../ui/table';
import { itemPath } from '../item-path';
import { ShelvesWords } from './shelves-words';
import { traceHref } from './trace-href';

type Lot = Dto['ExpiringLotDto'];
const DAYS = ['30', '90', '180', '365'] as const;
type Days = (typeof DAYS)[number];

/** Lots that pass their date soon: what of them will be left by then as they are asked for, and what may be done about it. */
export function ExpiringPage() {
  const me = useMe();
  const { asked, put } = useAsked();
  const days = DAYS.find((d) => d === asked('days')) ?? '180';
  const query = useQuery({
    queryKey: key('expiring', days),
    queryFn: () => ask(api.GET('/api/trace/expiring', { params: { query: { days } } })),
    placeholderData: (was) => was,
  });
  const money = (text: string) => moneyText(micro(text), me.data?.homeCurrency);
  const hasSites = (me.data?.sites.length ?? 0) > 1;
  return (
    <Page aria-label="Expiring">
      <h1 className="sr">Expiring</h1>
      <ShelvesWords at="expiring" />
      <div className="mt-2 mb-3">
        <Words<Days>
          label="Within"
          value={days}
          words={DAYS.map((d) => ({ value: d, says: `${d} days` }))}
          onChange={(d) => put('days', d, '180')}
        />
      </div>
      <Shown query={query}>
        {({ lots }) =>
          lots.length === 0 ? (
            <Empty title={`Nothing passes its date within ${days} days`}>Goods whose lots have a date show here before they pass it.</Empty>
          ) : (
            <>
              <Sentence>{says(lots, days, money)}</Sentence>
              <LinesTable className="mt-3">
                <thead>
                  <tr>
                    <td />
                    <td />
                    <th>Goods</th>
                    <th>Lot</th>
                    {hasSites && <th>Site</th>}
                    <th>Keeps until</th>
                    <th className="num">There</th>
                    <th className="num">Asked for a week</th>
                    <th className="num">Left by then</th>
                    <th>What may be done</th>
                  </tr>
                </thead>
                <tbody>
                  {lots.map((l) => (
                    <tr key={`${l.sku} ${l.lot} ${l.siteId}`}>
                      <GlyphCell>
                        <Glyph
                          name={l.todo === 'sells' ? 'full' : l.todo === 'take-out' ? 'blocked' : 'half'}
                          size={13}
                          says={l.todo === 'sells' ? 'will be sold' : l.todo === 'take-out' ? 'past its date' : 'some will be left'}
                        />
                      </GlyphCell>
                      <PictureCell>
                        <Picture name={l.picture} size={30} />
                      </PictureCell>
                      <td>
                        <Link to={itemPath(l.sku)}>
                          <b>{l.item}</b>
                        </Link>
                        <span className="note code">{l.sku}</span>
                      </td>
                      <td className="code">
                        <Link to={traceHref(l.sku, l.lot)}>{l.lot}</Link>
                      </td>
                      {hasSites && <td>{l.site}</td>}
                      <td className={l.days < 0 ? 'stamped' : ''}>
                        {day(l.expiresOn)}
                        <span className="note">
                          {l.days < 0 ? `${plural(-l.days, 'day', 'days')} ago` : `in ${plural(l.days, 'day', 'days')}`}
                        </span>
                      </td>
                      <td className="num">
                        {whole(l.units)}
                        {l.held > 0 && <span className="note">{whole(l.held)} held</span>}
                      </td>
                      <td className="num">{l.aWeek}</td>
                      <td className="num">
                        <b className={l.left > 0 ? 'stamped' : ''}>{whole(l.left)}</b>
                        {l.leftValue !== null && l.left > 0 && <span className="note">{money(l.leftValue)}</span>}
                      </td>
                      <td>
                        <Todo lot={l} />
                      </td>
                    </tr>
                  ))}
                </tbody>
              </LinesTable>
            </>
          )
        }
      </Shown>
    </Page>
  );
}

/** What of it all will be left, in a sentence. */
function says(lots: readonly Lot[], days: Days, money: (text: string) => string): string {
  const left = lots.filter((l) => l.left > 0);
  if (left.length === 0) return `All ${plural(lots.length, 'lot', 'lots')} that pass their date within ${days} days will be sold by then`;
  const worth = left.every((l) => l.leftValue !== null) ? left.reduce((n, l) => n + micro(l.leftValue ?? '0'), 0n) : null;
  const what = `Of ${plural(left.length, 'lot', 'lots')} some will be left when they pass their date within ${days} days, as they are asked for now`;
  return worth === null ? what : `${what}: ${money(String(Number(worth) / 1e6))} worth`;
}

function Todo({ lot: l }: { lot: Lot }) {
  if (l.todo === 'sells') return <span className="mid">nothing: it is sold by then</span>;
  if (l.todo === 'take-out')
    return (
      <>
        take it out: <Link to={itemPath(l.sku)}>scrap it or use it up</Link>
      </>
    );
  if (l.todo === 'transfer')
    return (
      <>
        {l.elsewhere} asks for more of it: <Link to="/shelves/transfers/new">send {whole(l.left)} there</Link>
      </>
    );
  return (
    <>
      mark {whole(l.left)} down, or <Link to="/inbound/returns">send them back</Link>
    </>
  );
}
