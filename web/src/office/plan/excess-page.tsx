import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useMe, useSite } from '../../api/queries';
import { ExportLinks } from '../../ui/export-links';
import { day, plural, whole } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Page, Sentence } from '../../ui/page';
import { Picture } from '../../ui/picture';
import { Empty, Shown } from '../../ui/states';
import { LinesTable, PictureCell } from '../../ui/table';
import { itemPath } from '../item-path';
import { planPath } from './basket';
import { PlanWords } from './plan-words';
import { SiteWords } from './site-words';

type Row = Dto['ExcessRowDto'];

/** What there is more of than half a year takes, what it ties up, and what could be done about it. */
export function ExcessPage() {
  const { site } = useSite();
  const siteId = site?.id ?? 0;
  const me = useMe();
  const query = useQuery({
    queryKey: key('excess', siteId),
    queryFn: () => ask(api.GET('/api/buying/sites/{siteId}/excess', { params: { path: { siteId } } })),
    enabled: site !== undefined,
  });
  return (
    <Page aria-label="Too much">
      <h1 className="sr">Too much</h1>
      <PlanWords at="much">
        <SiteWords />
        <ExportLinks list="excess" query={{ site: String(siteId) }} />
      </PlanWords>
      <Shown query={query}>
        {({ rows, value }) =>
          rows.length === 0 ? (
            <Empty title="There is too much of nothing">Goods that last longer than half a year stand here, the dearest first.</Empty>
          ) : (
            <>
              <Sentence className="mt-2">
                {`There is more of ${plural(rows.length, 'item', 'items')} than half a year will take`}
                {value !== undefined &&
                  `: ${whole(Math.round(Number(value)))} ${me.data?.homeCurrency ?? ''} are tied up in what is too much`}
              </Sentence>
              <LinesTable className="mt-3">
                <thead>
                  <tr>
                    <td />
                    <th>Goods</th>
                    <th className="num">Free</th>
                    <th className="num">Too many</th>
                    {value !== undefined && <th className="num">Worth</th>}
                    <th className="num">Lasts</th>
                    <th>Came in</th>
                    <th>What could be done</th>
                  </tr>
                </thead>
                <tbody>
                  {rows.map((r) => (
                    <tr key={r.sku}>
                      <PictureCell>
                        <Picture name={r.picture} size={30} />
                      </PictureCell>
                      <td>
                        <Link to={planPath(r.sku)}>
                          <b>{r.name}</b>
                        </Link>
                        <span className="note code">{r.sku}</span>
                      </td>
                      <td className="num">{whole(r.free)}</td>
                      <td className="num">
                        <b>{whole(r.units)}</b>
                      </td>
                      {value !== undefined && <td className="num">{Number(r.value ?? 0).toFixed(2)}</td>}
                      <td className="num">{lasts(r.coverDays)}</td>
                      <td>
                        {r.ageDays === null ? (
                          <span className="mid">not with an order</span>
                        ) : r.ageDays === 0 ? (
                          'today'
                        ) : (
                          `${whole(r.ageDays)} d ago`
                        )}
                        {r.expiresOn && <span className="note">expires {day(r.expiresOn)}</span>}
                      </td>
                      <td>
                        <Cures row={r} siteId={siteId} />
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

function lasts(days: number | null): string {
  if (days === null) return 'nobody asks';
  return days > 730 ? `${Math.round(days / 365)} years` : days > 120 ? `${Math.round(days / 30)} months` : `${days} d`;
}

/** What could be done, the least loss first: where it is wanted, back where it came from, sold with others, cheaper, used up. */
function Cures({ row: r, siteId }: { row: Row; siteId: number }) {
  const sku = encodeURIComponent(r.sku);
  const cures: { to: string; says: string }[] = [];
  if (r.wantedAt) {
    const units = Math.min(r.units, r.wantedAt.units);
    const to = `/shelves/transfers/new?from=${siteId}&to=${r.wantedAt.siteId}&sku=${sku}&units=${units}`;
    cures.push({ to, says: `send ${whole(units)} to ${r.wantedAt.site}, which would order it` });
  }
  if (r.backTo)
    cures.push({
      to: `/inbound/returns/new?arrival=${r.backTo.arrival}`,
      says: `send it back to ${r.backTo.supplier}; some came in lately`,
    });
  const [kit] = r.inKits;
  if (kit) cures.push({ to: itemPath(kit.sku), says: `it goes into ${kit.name}: sell more of that` });
  if (r.coverDays === null) cures.push({ to: '/books/slow', says: 'sell it off; what is set aside for it stands in the books' });
  if (cures.length === 0) return <span className="mid">order less of it; it goes in the end</span>;
  return (
    <ul>
      {cures.map((c) => (
        <li key={c.says}>
          <Link to={c.to}>
            {c.says} <Glyph name="go" size={11} />
          </Link>
        </li>
      ))}
    </ul>
  );
}
