import { useQuery } from '@tanstack/react-query';
import { micro, moneyText } from '@vectrum/core/money';
import { Link } from 'react-router';
import { api, ask } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { Days, useAsked } from '../../ui/asked';
import { Words } from '../../ui/field';
import { Page, Sentence } from '../../ui/page';
import { Empty, Shown } from '../../ui/states';
import { LinesTable } from '../../ui/table';
import { itemPath } from '../item-path';
import { BooksWords } from './books-words';
import { percentText } from './value-page';

const BY = [
  { value: 'order', says: 'By order' },
  { value: 'customer', says: 'By customer' },
  { value: 'channel', says: 'By channel' },
  { value: 'item', says: 'By item' },
] as const;
type By = (typeof BY)[number]['value'];
const HEADS: Readonly<Record<By, string>> = { order: 'Order', customer: 'Customer', channel: 'Channel', item: 'Item' };

/** What was left of sales, with the cost at which the goods really left; the least profitable first. */
export function MarginPage() {
  const me = useMe();
  const { asked, put } = useAsked();
  const [from, to] = [asked('from'), asked('to')];
  const by = BY.find((b) => b.value === asked('by'))?.value ?? 'order';
  const query = useQuery({
    queryKey: key('margin', from, to, by),
    queryFn: () => ask(api.GET('/api/margin', { params: { query: { from, to, by } } })),
    placeholderData: (was) => was,
  });
  const money = (amount: string) => moneyText(micro(amount), me.data?.homeCurrency);
  return (
    <Page aria-label="Margin">
      <h1 className="sr">Margin</h1>
      <BooksWords at="margin" />
      <div className="flex flex-wrap gap-x-5 gap-y-2 items-center mb-3">
        <Words<By> label="Grouped" value={by} words={[...BY]} onChange={(v) => put('by', v, 'order')} />
        <Days asked={asked} put={put} says="invoiced from" />
      </div>
      <Shown query={query}>
        {(m) =>
          m.rows.length === 0 ? (
            <Empty title="Nothing was invoiced in these days">What is left of sales stands here once they are invoiced.</Empty>
          ) : (
            <>
              <Sentence>
                Of {money(m.net)} invoiced {money(m.margin)} are left, {percentText(m.share)}
              </Sentence>
              <LinesTable className="mt-3">
                <thead>
                  <tr>
                    <th>{HEADS[by]}</th>
                    {by !== 'order' && <th className="num">Orders</th>}
                    <th className="num">Invoiced, without tax</th>
                    <th className="num">Cost of the goods</th>
                    <th className="num">Left</th>
                    <th className="num">Of it</th>
                  </tr>
                </thead>
                <tbody>
                  {m.rows.map((r) => (
                    <tr key={r.key}>
                      <td>
                        {by === 'order' || by === 'item' ? (
                          <>
                            <Link className="code" to={by === 'order' ? `/orders/${r.key}` : itemPath(r.key)}>
                              {r.key}
                            </Link>
                            <span className="note">{r.name}</span>
                          </>
                        ) : (
                          <b>{r.key}</b>
                        )}
                      </td>
                      {by !== 'order' && <td className="num">{r.orders}</td>}
                      <td className="num">
                        {money(r.net)}
                        {r.ahead && <span className="note">more has left than is invoiced</span>}
                      </td>
                      <td className="num">{money(r.cost)}</td>
                      <td className={`num ${micro(r.margin) < 0n ? 'stamped' : ''}`}>{money(r.margin)}</td>
                      <td className={`num ${r.share < 0 ? 'stamped' : ''}`}>{percentText(r.share)}</td>
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
