import { ActsForm } from '../../ui/page';
import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../api/use-act';
import { key } from '../../api/keys';
import { micro, moneyText } from '@vectrum/core/money';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, ask, ifMatch, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { day } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Picture } from '../../ui/picture';
import { Sheet, ShownSheet, Waybill } from '../../ui/sheet';
import { ProblemNote } from '../../ui/states';
import { RETURN_STATES } from './returns-page';
import { Button } from '../../ui/button';
import { Input } from '../../ui/input';
import { LinesTable, NumberCell, PictureCell } from '../../ui/table';

type Return = Dto['SupplierReturnDto'];

function Credit({ of }: { of: Return }) {
  const [ref, setRef] = useState('');
  const [amount, setAmount] = useState((of.expected ?? '').replace(/(\.\d\d)0+$/, '$1'));
  const credit = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/supplier-returns/{code}/credit', {
          params: { path: { code: of.code } },
          headers: { ...once, ...ifMatch(of.version) },
          body: { ref, amount },
        }),
      ),
  });
  return (
    <>
      <ProblemNote problem={credit.error} />
      <ActsForm
        onSubmit={(e) => {
          e.preventDefault();
          credit.mutate();
        }}
      >
        <Button next disabled={credit.isPending || ref.trim() === ''}>
          The credit has come <Glyph name="go" size={13} />
        </Button>
        <Input
          className="code"
          style={{ width: 170 }}
          aria-label="Number of the credit note"
          placeholder="credit note"
          maxLength={60}
          value={ref}
          onChange={(e) => setRef(e.target.value)}
        />
        <Input
          className="num"
          style={{ width: 110 }}
          inputMode="decimal"
          aria-label="Amount credited"
          value={amount}
          onChange={(e) => setAmount(e.target.value.trim())}
        />
        <span className="note">{of.currency}</span>
      </ActsForm>
    </>
  );
}

/** One return: what went back and why, the credit that is expected and the one that came. */
export function ReturnSheet() {
  const { code = '' } = useParams();
  const me = useMe();
  const query = useQuery({
    queryKey: key('supplier-return', code),
    queryFn: () => ask(api.GET('/api/supplier-returns/{code}', { params: { path: { code } } })),
  });
  return (
    <ShownSheet query={query} back="/inbound/returns">
      {(r) => (
        <Sheet
          address={`inbound/returns/${r.code}`}
          title={r.supplier}
          about={`Return, sent ${day(r.sentAt)} by ${r.sentBy}`}
          code={r.code}
          back="/inbound/returns"
          print={{ href: `/api/supplier-returns/${r.code}/pdf`, says: 'Print note' }}
        >
          <Waybill
            cells={[
              {
                cap: 'State',
                value: RETURN_STATES[r.state] ?? r.state,
                note: r.creditedAt ? `${day(r.creditedAt)} by ${r.creditedBy ?? ''}` : '',
              },
              { cap: 'Why', value: r.reason, note: r.site },
              ...(r.expected === undefined
                ? []
                : [
                    { cap: 'Credit expected', value: moneyText(micro(r.expected), r.currency), note: '' },
                    {
                      cap: 'Credit',
                      value: r.credited ? moneyText(micro(r.credited), r.currency) : 'not yet',
                      note: r.creditRef ?? '',
                    },
                  ]),
            ]}
          />
          <LinesTable>
            <thead>
              <tr>
                <td />
                <td />
                <th>Went back</th>
                <th className="num">How much</th>
                <th>Lot or number</th>
                <th>Came with</th>
                <th className="num">Credit</th>
              </tr>
            </thead>
            <tbody>
              {r.goods.map((g) => (
                <tr key={g.line}>
                  <NumberCell>{g.line}</NumberCell>
                  <PictureCell>
                    <Picture name={g.picture} size={30} />
                  </PictureCell>
                  <td>
                    <b>{g.name}</b>
                    <span className="note">{g.condition.replace('-', ' ')}</span>
                  </td>
                  <td className="num">
                    <b>{g.words}</b>
                  </td>
                  <td className="code">{g.lot ?? ''}</td>
                  <td>
                    {g.order ? (
                      <Link to={`/inbound/${g.order}`} className="code">
                        {g.order}
                      </Link>
                    ) : (
                      'no order'
                    )}
                  </td>
                  <td className="num">{g.expected ? moneyText(micro(g.expected), r.currency) : ''}</td>
                </tr>
              ))}
            </tbody>
          </LinesTable>
          {r.state === 'sent' && me.data?.rights.includes('bills') && <Credit of={r} />}
        </Sheet>
      )}
    </ShownSheet>
  );
}
