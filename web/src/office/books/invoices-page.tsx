import { micro, moneyText } from '@vectrum/core/money';
import { useParams } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { useAsked } from '../../ui/asked';
import { ExportLinks } from '../../ui/export-links';
import { Words } from '../../ui/field';
import { day } from '../../ui/format';
import { Glyph, type GlyphName } from '../../ui/glyph';
import { Input } from '../../ui/input';
import { ListPage, useBeside } from '../../ui/list-page';
import { MoreRows, useLongList } from '../../ui/long-list';
import { OpenRow } from '../../ui/open-row';
import { FilterLine } from '../../ui/page';
import { Empty, Shown } from '../../ui/states';
import { DenseTable } from '../../ui/table';
import { BooksWords } from './books-words';

type Row = Dto['InvoiceRowDto'];
const SHOWS = [
  { value: 'all', says: 'All' },
  { value: 'open', says: 'Open' },
  { value: 'overdue', says: 'Overdue' },
  { value: 'credits', says: 'Credit notes' },
] as const;
type Show = (typeof SHOWS)[number]['value'];

export const invoiceGlyph = (v: Pick<Row, 'open' | 'gross' | 'overdue'>): GlyphName =>
  micro(v.open) === 0n ? 'full' : v.overdue ? 'blocked' : v.open === v.gross ? 'empty' : 'half';

/** Invoices and credit notes, what is owed and what is overdue. */
export function InvoicesPage() {
  const { code: open } = useParams();
  const beside = useBeside();
  const me = useMe();
  const { asked, put } = useAsked();
  const show = SHOWS.find((s) => s.value === asked('show'))?.value ?? 'all';
  const search = asked('search');
  const query = useLongList(key('invoices', show, search), (window) =>
    ask(api.GET('/api/invoices', { params: { query: { ...window, show, search } } })),
  );
  const money = (amount: string) => moneyText(micro(amount), me.data?.homeCurrency);
  return (
    <ListPage title="Invoices" width={560}>
      <BooksWords at="invoices">{!beside && <ExportLinks list="invoices" query={{ show, search }} />}</BooksWords>
      <FilterLine>
        <Words<Show> label="Show" value={show} words={[...SHOWS]} onChange={(v) => put('show', v, 'all')} />
        <Input
          style={{ width: 180 }}
          type="search"
          aria-label="Number or customer"
          placeholder="number or customer"
          defaultValue={search}
          onChange={(e) => put('search', e.target.value)}
        />
      </FilterLine>
      <Shown query={query}>
        {(page) =>
          page.rows.length === 0 ? (
            <Empty title="No such invoices">They are made from what was delivered, under To invoice.</Empty>
          ) : (
            <>
              {'owed' in page && (
                <p className="note">
                  Customers owe {money(String(page.owed))}
                  {micro(String(page.overdue)) > 0n && <span className="stamped">, of it overdue {money(String(page.overdue))}</span>}
                </p>
              )}
              <DenseTable>
                <thead>
                  <tr>
                    <td />
                    <th>Document</th>
                    <th>Customer</th>
                    {!beside && <th>Of</th>}
                    <th>Due</th>
                    <th className="num">Amount</th>
                    <th className="num">Open</th>
                  </tr>
                </thead>
                <tbody>
                  {page.rows.map((v) => (
                    <OpenRow key={v.code} to={`/books/invoices/${v.code}`} open={v.code === open}>
                      <td>
                        <Glyph name={invoiceGlyph(v)} size={14} says={v.overdue ? 'overdue' : micro(v.open) === 0n ? 'settled' : 'open'} />
                      </td>
                      <td className="code">{v.code}</td>
                      <td>{v.name}</td>
                      {!beside && <td className="mid">{day(v.issuedOn)}</td>}
                      <td className={v.overdue ? 'stamped' : 'mid'}>{v.kind === 'credit' ? '' : day(v.dueOn)}</td>
                      <td className="num">{moneyText(micro(v.gross), v.currency)}</td>
                      <td className="num">{micro(v.open) === 0n ? '' : moneyText(micro(v.open), v.currency)}</td>
                    </OpenRow>
                  ))}
                </tbody>
              </DenseTable>
            </>
          )
        }
      </Shown>
      <MoreRows list={query} what={['document', 'documents']} />
    </ListPage>
  );
}
