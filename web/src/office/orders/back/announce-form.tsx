import { useQuery } from '@tanstack/react-query';
import { REASON_NAMES, RETURN_REASONS, type ReturnReason, WISHES, type Wish } from '@vectrum/core/customer-returns';
import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { api, ask, type Dto } from '../../../api/client';
import { key } from '../../../api/keys';
import { SelectField, TextField } from '../../../ui/record/fields';
import { type FieldWords, RecordBody } from '../../../ui/record/record-form';
import { useRecord } from '../../../ui/record/use-record';
import { TextButton } from '../../../ui/button';
import { plural } from '../../../ui/format';
import { Input, Select } from '../../../ui/input';
import { Picture } from '../../../ui/picture';
import { Sheet } from '../../../ui/sheet';
import { Empty, Shown } from '../../../ui/states';
import { LinesTable, PictureCell } from '../../../ui/table';
import { wishWords } from './return-words';

type Line = Dto['ReturnableDto'];
interface Values {
  wish: string;
  note: string;
  /** Units that come back, as typed, and why, by the line of the order. */
  units: Record<string, string>;
  reasons: Record<string, ReturnReason>;
}
const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  wish: { label: 'What they wish' },
  note: { label: 'What they say' },
  units: { label: 'Units' },
  reasons: { label: 'Why' },
};

/** A customer says that they send something back: which goods of the order, and why. They get the paper for the parcel. */
export function AnnounceForm() {
  const [params] = useSearchParams();
  const order = params.get('order') ?? '';
  const goods = useQuery({
    queryKey: key('returnable', order),
    queryFn: () => ask(api.GET('/api/customer-returns/of-order/{code}', { params: { path: { code: order } } })),
    enabled: order !== '',
  });
  return (
    <Sheet
      address="orders/returns/new"
      title={order ? `What comes back of ${order}` : 'A return'}
      back={order ? `/orders/${order}` : '/orders/returns'}
    >
      {order === '' ? (
        <Empty title="Open its order first">A return is announced from the order that the goods left with: Something comes back.</Empty>
      ) : (
        <Shown query={goods}>
          {(list) =>
            list.length === 0 ? (
              <Empty title="Nothing of it is with the customer">
                What has not left cannot come back, and all that left is back already.
              </Empty>
            ) : (
              <Form order={order} list={list} />
            )
          }
        </Shown>
      )}
    </Sheet>
  );
}

function Form({ order, list }: { order: string; list: readonly Line[] }) {
  const navigate = useNavigate();
  const [start] = useState<Values>(() => ({ wish: '', note: '', units: {}, reasons: {} }));
  const coming = ({ units, reasons }: Pick<Values, 'units' | 'reasons'>) =>
    list.flatMap((l) => {
      const n = Number(units[l.orderLine] ?? 0);
      return n > 0 ? [{ orderLine: l.orderLine, units: n, reason: reasons[l.orderLine] ?? ('unwanted' as const) }] : [];
    });
  const record = useRecord<Values, { code: string }>({
    source: { values: start },
    save: (values, _, once) =>
      ask(
        api.POST('/api/customer-returns', {
          headers: once,
          body: { order, wish: (values.wish || null) as Wish | null, note: values.note, lines: coming(values) },
        }),
      ),
    onSaved: ({ code }) => void navigate(`/orders/returns/${code}`),
  });
  const { watch, setValue } = record.form;
  const [units, reasons] = watch(['units', 'reasons']);
  const lines = coming({ units, reasons });
  return (
    <RecordBody
      record={record}
      words={WORDS}
      keep={lines.length === 0 ? 'Announce it' : `Announce ${plural(lines.length, 'line', 'lines')}`}
      ready={lines.length > 0}
      wide
      more={lines.length === 0 && <span className="note">Say how many of which goods come back</span>}
    >
      <div className="grid gap-4 sm:grid-cols-[1fr_2fr]">
        <SelectField name="wish" label={WORDS.wish.label} autoFocus>
          <option value="">Nothing said</option>
          {WISHES.map((w) => (
            <option key={w} value={w}>
              {wishWords(w)}
            </option>
          ))}
        </SelectField>
        <TextField name="note" label={WORDS.note.label} maxLength={300} />
      </div>
      <LinesTable>
        <thead>
          <tr>
            <td />
            <th>With the customer</th>
            <th>Why</th>
            <th className="num">Units back</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {list.map((l) => (
            <tr key={l.orderLine}>
              <PictureCell>
                <Picture name={l.picture} size={30} />
              </PictureCell>
              <td>
                <b>{l.name}</b>
                <span className="note">{l.words}</span>
              </td>
              <td style={{ width: 190 }}>
                <Select
                  aria-label={`Why ${l.name} comes back`}
                  value={reasons[l.orderLine] ?? 'unwanted'}
                  onChange={(e) =>
                    setValue('reasons', { ...reasons, [l.orderLine]: e.target.value as ReturnReason }, { shouldDirty: true })
                  }
                >
                  {REASON_NAMES.map((r) => (
                    <option key={r} value={r}>
                      {RETURN_REASONS[r].says}
                    </option>
                  ))}
                </Select>
              </td>
              <td className="num" style={{ width: 96 }}>
                <Input
                  className="num"
                  inputMode="numeric"
                  aria-label={`Units of ${l.name} that come back`}
                  value={units[l.orderLine] ?? ''}
                  onChange={(e) => setValue('units', { ...units, [l.orderLine]: e.target.value.trim() }, { shouldDirty: true })}
                />
              </td>
              <td>
                <TextButton
                  type="button"
                  onClick={() =>
                    setValue('units', { ...units, [l.orderLine]: units[l.orderLine] ? '' : String(l.units) }, { shouldDirty: true })
                  }
                >
                  {units[l.orderLine] ? 'none' : 'all of it'}
                </TextButton>
              </td>
            </tr>
          ))}
        </tbody>
      </LinesTable>
    </RecordBody>
  );
}
