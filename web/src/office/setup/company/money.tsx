import { useQuery } from '@tanstack/react-query';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe } from '../../../api/queries';
import { today } from '../../../api/site-day';
import type { FieldWords } from '../../../ui/record/record-form';
import { RowsField } from '../../../ui/record/rows-field';
import { SetUpForm } from '../../../ui/record/set-up-form';
import { useRecord } from '../../../ui/record/use-record';
import { Shown } from '../../../ui/states';

type Values = Dto['MoneyDto'];
const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  currencies: { label: 'Currencies', show: (list: Values['currencies']) => list.map((c) => `${c.code} ${c.rate}`).join(', ') },
  taxRates: { label: 'Taxes', show: (list: Values['taxRates']) => list.map((t) => `${t.code} ${t.percent}`).join(', ') },
};

/** Currencies with the rates typed in, and the tax rates that items can have. */
export function Money() {
  const query = useQuery({ queryKey: key('money'), queryFn: () => ask(api.GET('/api/company/money')) });
  return <Shown query={query}>{(money) => <Form money={money} />}</Shown>;
}

function Form({ money }: { money: Dto['MoneyListsDto'] }) {
  const me = useMe();
  const record = useRecord<Values, unknown>({
    part: 'money',
    source: { values: { currencies: money.currencies, taxRates: money.taxRates }, version: money.version },
    save: ({ currencies, taxRates }, version, once) =>
      ask(
        api.PUT('/api/company/money', {
          body: {
            currencies: currencies.map((c) => ({ ...c, code: c.code.trim().toUpperCase() })),
            taxRates: taxRates.map((t) => ({ ...t, code: t.code.trim().toUpperCase() })),
          },
          headers: { ...once, ...ifMatch(version ?? 1) },
        }),
      ),
  });
  return (
    <SetUpForm
      title="Currencies and taxes"
      note={`Orders in another currency also show what they come to in ${me.data?.homeCurrency ?? 'the home currency'}. Items name the tax they are sold at.`}
      keep="Keep currencies and taxes"
      record={record}
      words={WORDS}
    >
      <div className="flex gap-10 flex-wrap items-start">
        <div className="w-[460px] max-w-full">
          <RowsField
            name="currencies"
            one="currency"
            columns={[
              { name: 'code', label: 'Currency', code: true, width: 90, placeholder: 'EUR' },
              { name: 'rate', label: `One is worth, ${me.data?.homeCurrency ?? ''}`, num: true },
              { name: 'asOf', label: 'As of', type: 'date', width: 150 },
            ]}
            blank={{ code: '', rate: '', asOf: today() }}
          />
        </div>
        <div className="w-[460px] max-w-full">
          <RowsField
            name="taxRates"
            one="tax"
            columns={[
              { name: 'code', label: 'Tax', code: true, width: 100, placeholder: 'STD' },
              { name: 'name', label: 'Name' },
              { name: 'percent', label: 'Per cent', num: true, width: 90 },
            ]}
            blank={{ code: '', name: '', percent: '' }}
          />
        </div>
      </div>
    </SetUpForm>
  );
}
