import { useQuery } from '@tanstack/react-query';
import { micro, moneyText } from '@vectrum/core/money';
import { Link } from 'react-router';
import { api, ask } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { useAct } from '../../api/use-act';
import { Button, TextLink } from '../../ui/button';
import { whole } from '../../ui/format';
import { Page, Sentence } from '../../ui/page';
import { Empty, ProblemNote, Shown } from '../../ui/states';
import { LinesTable } from '../../ui/table';
import { itemPath } from '../item-path';
import { BooksWords } from './books-words';

/** Goods that nobody has bought for long, and what the rule sets aside for them beside what the books have. */
export function SlowPage() {
  const me = useMe();
  const query = useQuery({ queryKey: key('slow-goods'), queryFn: () => ask(api.GET('/api/value/slow')) });
  const book = useAct({ act: (_: void, once) => ask(api.POST('/api/value/slow/book', { headers: once })) });
  const money = (amount: string) => moneyText(micro(amount), me.data?.homeCurrency);
  return (
    <Page aria-label="Slow goods">
      <h1 className="sr">Slow goods</h1>
      <BooksWords at="slow" />
      <Shown query={query}>
        {(s) => {
          const differs = micro(s.reserve) !== micro(s.booked);
          return (
            <>
              <div className="flex flex-wrap gap-x-5 gap-y-2 items-center mt-2">
                <Sentence>
                  {money(s.reserve)} to be set aside, {differs ? `${money(s.booked)} are in the books` : 'and that is in the books'}
                </Sentence>
                {differs && (
                  <Button type="button" disabled={book.isPending} onClick={() => book.mutate()}>
                    Book the difference
                  </Button>
                )}
                <TextLink to="/setup/company">The rule</TextLink>
              </div>
              <ProblemNote problem={book.error} />
              {s.rows.length === 0 ? (
                <Empty title="Everything sells">
                  Goods that nobody buys for longer than the rule says stand here, with what is set aside for them.
                </Empty>
              ) : (
                <LinesTable className="mt-3">
                  <thead>
                    <tr>
                      <th>Item</th>
                      <th className="num">There</th>
                      <th className="num">Worth</th>
                      <th className="num">Last sold</th>
                      <th className="num">Set aside</th>
                      <th className="num">Of it</th>
                    </tr>
                  </thead>
                  <tbody>
                    {s.rows.map((r) => (
                      <tr key={r.sku}>
                        <td>
                          <Link to={itemPath(r.sku)}>
                            <b>{r.name}</b>
                          </Link>
                          <span className="note code">{r.sku}</span>
                        </td>
                        <td className="num">{r.words}</td>
                        <td className="num">{money(r.value)}</td>
                        <td className="num">{r.sold ? `${whole(r.days)} d ago` : `never, here for ${whole(r.days)} d`}</td>
                        <td className="num">
                          <b>{money(r.reserve)}</b>
                        </td>
                        <td className="num">{r.percent} %</td>
                      </tr>
                    ))}
                  </tbody>
                </LinesTable>
              )}
            </>
          );
        }}
      </Shown>
    </Page>
  );
}
