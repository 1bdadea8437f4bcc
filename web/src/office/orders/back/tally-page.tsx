import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, ask } from '../../../api/client';
import { key } from '../../../api/keys';
import { Days, useAsked } from '../../../ui/asked';
import { Words } from '../../../ui/field';
import { whole } from '../../../ui/format';
import { Page, Sentence } from '../../../ui/page';
import { Empty, Shown } from '../../../ui/states';
import { LinesTable } from '../../../ui/table';
import { OrdersWords } from '../orders-words';

const BY = [
  { value: 'item', says: 'By item' },
  { value: 'supplier', says: 'By supplier' },
  { value: 'customer', says: 'By customer' },
] as const;
type By = (typeof BY)[number]['value'];
const HEADS: Readonly<Record<By, string>> = { item: 'Item', supplier: 'Supplier', customer: 'Customer' };
/** From this share on, and this many returns, it is worth a word with somebody. */
const MUCH = { share: 10, returns: 3 };

const pathOf = (by: By, code: string) =>
  ({
    item: `/shelves/items/${encodeURIComponent(code)}`,
    supplier: `/inbound/suppliers/${encodeURIComponent(code)}`,
    customer: `/orders/customers/${encodeURIComponent(code)}`,
  })[by];

/** What comes back of what leaves, and who answers for it: faulty goods by item and supplier, and who sends much back. */
export function TallyPage() {
  const { asked, put } = useAsked();
  const [from, to] = [asked('from'), asked('to')];
  const by = BY.find((b) => b.value === asked('by'))?.value ?? 'item';
  const query = useQuery({
    queryKey: key('return-tally', from, to, by),
    queryFn: () => ask(api.GET('/api/customer-returns/tally', { params: { query: { from, to, by } } })),
    placeholderData: (was) => was,
  });
  return (
    <Page aria-label="What comes back most">
      <h1 className="sr">What comes back most</h1>
      <OrdersWords here="/orders/returns" />
      <div className="flex flex-wrap gap-x-5 gap-y-2 items-center mb-3 mt-2">
        <Words<By> label="Grouped" value={by} words={[...BY]} onChange={(v) => put('by', v, 'item')} />
        <Days asked={asked} put={put} says="back from" />
      </div>
      <Shown query={query}>
        {({ rows }) =>
          rows.length === 0 ? (
            <Empty title="Nothing came back in these days">
              What customers send back is counted here, beside what left in the same days.
            </Empty>
          ) : (
            <>
              <Sentence>
                Most of it is {rows[0]?.name || rows[0]?.key}: {whole(rows[0]?.back ?? 0)} of {whole(rows[0]?.left ?? 0)} that left
              </Sentence>
              <LinesTable className="mt-3">
                <thead>
                  <tr>
                    <th>{HEADS[by]}</th>
                    <th className="num">Left</th>
                    <th className="num">Back</th>
                    <th className="num">Of it</th>
                    <th className="num">Returns</th>
                    <th className="num">Faulty</th>
                    <th className="num">Our or the carrier’s fault</th>
                    <th className="num">Their own reasons</th>
                  </tr>
                </thead>
                <tbody>
                  {rows.map((r) => (
                    <tr key={r.key}>
                      <td>
                        <b>{r.name || r.key}</b>
                        <span className="note">
                          {by === 'customer' && r.name === r.key ? 'no account' : <Link to={pathOf(by, r.key)}>{r.key}</Link>}
                        </span>
                      </td>
                      <td className="num">{whole(r.left)}</td>
                      <td className="num">
                        <b>{whole(r.back)}</b>
                      </td>
                      <td className={`num ${r.share >= MUCH.share && r.returns >= MUCH.returns ? 'stamped' : ''}`}>{r.share} %</td>
                      <td className="num">{whole(r.returns)}</td>
                      <td className="num">{r.faulty > 0 && whole(r.faulty)}</td>
                      <td className="num">{r.ours > 0 && whole(r.ours)}</td>
                      <td className="num">{r.theirs > 0 && whole(r.theirs)}</td>
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
