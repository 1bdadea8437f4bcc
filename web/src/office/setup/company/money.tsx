import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { useState } from 'react';
import { api, ask, type Dto } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { Glyph } from '../../../ui/glyph';
import { ProblemNote, Shown } from '../../../ui/states';
import { BlockHead } from '../../../ui/page';
import { LinesTable } from '../../../ui/table';
import { Input } from '../../../ui/input';
import { TextButton, Button } from '../../../ui/button';

/** Currencies with the rates typed in, and the tax rates that items can have. */
export function Money() {
  const query = useQuery({ queryKey: key('money'), queryFn: () => ask(api.GET('/api/company/money')) });
  return <Shown query={query}>{(money) => <Form key={JSON.stringify(money)} money={money} />}</Shown>;
}

function Form({ money }: { money: Dto['MoneyDto'] }) {
  const me = useMe();
  const [values, setValues] = useState(money);
  const save = useAct({ act: (_: void, once) => ask(api.PUT('/api/company/money', { body: values, headers: once })) });
  const { currencies, taxRates } = values;
  const currency = (i: number, change: Partial<Dto['CurrencyDto']>) =>
    setValues({ ...values, currencies: currencies.map((c, n) => (n === i ? { ...c, ...change } : c)) });
  const tax = (i: number, change: Partial<Dto['TaxRateDto']>) =>
    setValues({ ...values, taxRates: taxRates.map((t, n) => (n === i ? { ...t, ...change } : t)) });
  const changed = JSON.stringify(values) !== JSON.stringify(money);
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <BlockHead>
        <h2>Currencies and taxes</h2>
        <span className="note">
          Orders in another currency also show what they come to in {me.data?.homeCurrency}. Items name the tax they are sold at.
        </span>
      </BlockHead>
      <div className="flex gap-10 flex-wrap items-start">
        <LinesTable style={{ width: 420 }}>
          <thead>
            <tr>
              <th>Currency</th>
              <th className="num">One is worth, {me.data?.homeCurrency}</th>
              <th>As of</th>
              <td />
            </tr>
          </thead>
          <tbody>
            {currencies.map((c, i) => (
              <tr key={i}>
                <td>
                  <Input
                    className="code"
                    style={{ width: 70 }}
                    aria-label={`Currency ${i + 1}`}
                    value={c.code}
                    onChange={(e) => currency(i, { code: e.target.value.toUpperCase() })}
                  />
                </td>
                <td>
                  <Input
                    className="num"
                    inputMode="decimal"
                    aria-label={`Rate of ${c.code}`}
                    value={c.rate}
                    onChange={(e) => currency(i, { rate: e.target.value })}
                  />
                </td>
                <td>
                  <Input
                    type="date"
                    aria-label={`Date of the rate of ${c.code}`}
                    value={c.asOf}
                    onChange={(e) => currency(i, { asOf: e.target.value })}
                  />
                </td>
                <td>
                  <button
                    type="button"
                    aria-label={`Take ${c.code} out`}
                    onClick={() => setValues({ ...values, currencies: currencies.filter((_, n) => n !== i) })}
                  >
                    <Glyph name="shut" />
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </LinesTable>
        <LinesTable style={{ width: 420 }}>
          <thead>
            <tr>
              <th>Tax</th>
              <th>Name</th>
              <th className="num">Per cent</th>
              <td />
            </tr>
          </thead>
          <tbody>
            {taxRates.map((t, i) => (
              <tr key={i}>
                <td>
                  <Input
                    className="code"
                    style={{ width: 80 }}
                    aria-label={`Code of tax ${i + 1}`}
                    value={t.code}
                    onChange={(e) => tax(i, { code: e.target.value.toUpperCase() })}
                  />
                </td>
                <td>
                  <Input aria-label={`Name of tax ${t.code}`} value={t.name} onChange={(e) => tax(i, { name: e.target.value })} />
                </td>
                <td style={{ width: 90 }}>
                  <Input
                    className="num"
                    inputMode="decimal"
                    aria-label={`Rate of tax ${t.code}`}
                    value={t.percent}
                    onChange={(e) => tax(i, { percent: e.target.value })}
                  />
                </td>
                <td>
                  <button
                    type="button"
                    aria-label={`Take tax ${t.code} out`}
                    onClick={() => setValues({ ...values, taxRates: taxRates.filter((_, n) => n !== i) })}
                  >
                    <Glyph name="shut" />
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </LinesTable>
      </div>
      <ProblemNote problem={save.error} />
      <div className="flex gap-5 items-center mt-3">
        <TextButton
          type="button"

          onClick={() =>
            setValues({ ...values, currencies: [...currencies, { code: '', rate: '', asOf: new Date().toISOString().slice(0, 10) }] })
          }
        >
          Another currency
        </TextButton>
        <TextButton
          type="button"

          onClick={() => setValues({ ...values, taxRates: [...taxRates, { code: '', name: '', percent: '' }] })}
        >
          Another tax
        </TextButton>
        <Button disabled={!changed || save.isPending}>Keep currencies and taxes</Button>
      </div>
    </form>
  );
}
