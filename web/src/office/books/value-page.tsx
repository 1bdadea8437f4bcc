import { micro, moneyText } from '@vectrum/core/money';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { useAsked } from '../../ui/asked';
import { ExportLinks } from '../../ui/export-links';
import { Words } from '../../ui/field';
import { Input } from '../../ui/input';
import { MoreRows, useLongList } from '../../ui/long-list';
import { Page, Sentence } from '../../ui/page';
import { Empty, Shown } from '../../ui/states';
import { LinesTable } from '../../ui/table';
import { itemPath } from '../item-path';
import { BooksWords } from './books-words';

const BY = [
  { value: 'item', says: 'By item' },
  { value: 'class', says: 'By class' },
  { value: 'site', says: 'By site' },
  { value: 'lot', says: 'By lot' },
] as const;
type By = (typeof BY)[number]['value'];
const HEADS: Readonly<Record<By, string>> = { item: 'Item', class: 'Class', site: 'Site', lot: 'Lot' };
const COUNTED: Readonly<Record<By, [one: string, many: string]>> = {
  item: ['item', 'items'],
  class: ['class', 'classes'],
  site: ['site', 'sites'],
  lot: ['lot', 'lots'],
};

export const percentText = (hundredths: number) => `${(hundredths / 100).toFixed(1).replace('-', '−')} %`;

/** What stock is worth, or was at the end of a day; how old it is. */
export function ValuePage() {
  const me = useMe();
  const { asked, put } = useAsked();
  const on = asked('on');
  const by = BY.find((b) => b.value === asked('by'))?.value ?? 'item';
  const ofItems = by === 'item' || by === 'lot';
  const search = asked('search');
  const query = useLongList(key('stock-value', on, by, search), (window) =>
    ask(api.GET('/api/value', { params: { query: { ...window, on, by, search } } })),
  );
  const money = (amount: string) => moneyText(micro(amount), me.data?.homeCurrency);
  return (
    <Page aria-label="Value">
      <h1 className="sr">What stock is worth</h1>
      <BooksWords at="value">
        <ExportLinks list="stock-value" query={{ on, by, search }} />
      </BooksWords>
      <div className="flex flex-wrap gap-x-5 gap-y-2 items-center mb-3">
        <Words<By> label="Grouped" value={by} words={[...BY]} onChange={(v) => put('by', v, 'item')} />
        <label className="flex gap-2 items-center">
          at the end of{' '}
          <Input type="date" className="w-[150px]" aria-label="At the end of" value={on} onChange={(e) => put('on', e.target.value)} />
        </label>
        <Input
          className="w-[220px]"
          aria-label="Narrow the list"
          placeholder="item or class"
          value={search}
          onChange={(e) => put('search', e.target.value)}
        />
      </div>
      <Shown query={query}>
        {(page) =>
          page.rows.length === 0 ? (
            <Empty title="There was nothing">Choose another day, or leave it empty to see what there is now.</Empty>
          ) : (
            <>
              {'value' in page && (
                <Sentence>
                  {money(String(page.value))} {on === '' ? 'in stock now' : 'in stock then'}
                </Sentence>
              )}
              {'ages' in page && <Ages ages={page.ages} money={money} />}
              <LinesTable className="mt-3">
                <thead>
                  <tr>
                    <th>{HEADS[by]}</th>
                    {ofItems && <th className="num">There</th>}
                    {ofItems && <th className="num">Of one</th>}
                    <th className="num">Worth</th>
                    <th className="num">Of all</th>
                  </tr>
                </thead>
                <tbody>
                  {page.rows.map((r) => (
                    <tr key={`${r.key}/${r.lot ?? ''}`}>
                      <td>
                        {!ofItems ? (
                          <b>{r.name}</b>
                        ) : (
                          <>
                            <Link to={itemPath(r.key)}>
                              <b>{r.name}</b>
                            </Link>
                            <span className="note code">{r.lot ?? r.key}</span>
                          </>
                        )}
                      </td>
                      {ofItems && <td className="num">{r.words}</td>}
                      {ofItems && <td className="num">{r.each}</td>}
                      <td className="num">{money(r.value)}</td>
                      <td className="num">{percentText(r.share)}</td>
                    </tr>
                  ))}
                </tbody>
              </LinesTable>
            </>
          )
        }
      </Shown>
      <MoreRows list={query} what={COUNTED[by]} />
    </Page>
  );
}

/** How long what is there has been there: a rail a band, and its worth. */
function Ages({ ages, money }: { ages: readonly Dto['AgeDto'][]; money: (amount: string) => string }) {
  const most = ages.reduce((m, a) => (micro(a.value) > m ? micro(a.value) : m), 1n);
  if (ages.length === 0) return null;
  return (
    <table aria-label="How long it has been there" className="mt-2" style={{ width: 'auto' }}>
      <tbody>
        {ages.map((a) => (
          <tr key={a.says}>
            <th scope="row" className="pr-4 text-left font-normal mid">
              {a.says}
            </th>
            <td style={{ width: 260 }}>
              <span
                aria-hidden
                className="block h-[9px] bg-ink"
                style={{ width: `${Number((micro(a.value) * 1000n) / most) / 10}%`, minWidth: micro(a.value) > 0n ? 2 : 0 }}
              />
            </td>
            <td className="num pl-4">{money(a.value)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
