import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../api/use-act';
import { key } from '../../api/keys';
import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { useMe, useSuppliers } from '../../api/queries';
import { plural } from '../../ui/format';
import { Picture } from '../../ui/picture';
import { SelectField, TextField } from '../../ui/record/fields';
import { type FieldWords, RecordBody } from '../../ui/record/record-form';
import { useRecord } from '../../ui/record/use-record';
import { Sheet } from '../../ui/sheet';
import { Empty, ProblemNote, Shown } from '../../ui/states';
import { Input } from '../../ui/input';
import { LinesTable, PictureCell } from '../../ui/table';
import { TextButton } from '../../ui/button';

type Aside = Dto['AsideDto'];

const keyOf = (g: Aside) => `${g.itemId}/${g.lotId}/${g.condition}/${g.placeId}`;

const ofSupplier = (list: readonly Aside[], supplier: string) => list.filter((g) => g.supplierCode === supplier || g.supplierCode === null);
const goingOf = (list: readonly Aside[], supplier: string, units: Readonly<Record<string, string>>) =>
  ofSupplier(list, supplier).filter((g) => Number(units[keyOf(g)] ?? 0) > 0);

/** Chooses what goes back to a supplier: from what stands apart, or from all that an arrival brought. */
export function ReturnForm() {
  const [params] = useSearchParams();
  const arrival = params.get('arrival');
  const goods = useQuery({
    queryKey: key('aside', arrival),
    queryFn: () =>
      ask(
        arrival
          ? api.GET('/api/supplier-returns/of-arrival/{code}', { params: { path: { code: arrival } } })
          : api.GET('/api/supplier-returns/aside'),
      ),
  });
  return (
    <Sheet
      address="inbound/returns/new"
      title={arrival ? `What came with ${arrival}` : 'Goods that stand apart'}
      back={arrival ? `/inbound/arrivals/${arrival}` : '/inbound/returns'}
    >
      <Shown query={goods}>
        {(list) =>
          list.length === 0 ? (
            <Empty title={arrival ? 'None of it is here any more' : 'Nothing stands apart'}>
              {arrival ? 'It was sold, used or sent back.' : 'Goods that the dock sets apart, damaged or wrong, show here.'}
            </Empty>
          ) : (
            <Form list={list} ofArrival={arrival !== null} />
          )
        }
      </Shown>
    </Sheet>
  );
}

interface Values {
  supplier: string;
  reason: string;
  /** Units that go back, as typed, by what they are and where they stand. */
  units: Record<string, string>;
}
const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  supplier: { label: 'To' },
  reason: { label: 'Why they go back' },
  units: { label: 'Units' },
};

function Form({ list, ofArrival }: { list: readonly Aside[]; ofArrival: boolean }) {
  const navigate = useNavigate();
  const me = useMe();
  const suppliers = useSuppliers();
  const [start] = useState<Values>(() => ({
    supplier: list.find((g) => g.supplierCode)?.supplierCode ?? '',
    reason: '',
    units: {},
  }));
  const record = useRecord<Values, { code: string }>({
    source: { values: start },
    save: ({ supplier, reason, units }, _, once) => {
      const going = goingOf(list, supplier, units);
      return ask(
        api.POST('/api/supplier-returns', {
          body: {
            supplier,
            siteId: going[0]?.siteId ?? 0,
            reason,
            lines: going.map((g) => ({
              itemId: g.itemId,
              lotId: g.lotId,
              condition: g.condition as 'held',
              placeId: g.placeId,
              units: Number(units[keyOf(g)]),
            })),
          },
          headers: once,
        }),
      );
    },
    onSaved: ({ code }) => void navigate(`/inbound/returns/${code}`),
  });
  const { watch, setValue } = record.form;
  const [supplier, reason, units] = watch(['supplier', 'reason', 'units']);
  const theirs = ofSupplier(list, supplier);
  const going = goingOf(list, supplier, units);
  const take = useAct({
    act: (g: Aside, once) =>
      ask(
        api.POST('/api/supplier-returns/aside/take-in', {
          body: {
            itemId: g.itemId,
            lotId: g.lotId,
            condition: g.condition as 'held' | 'damaged' | 'apart',
            placeId: g.placeId,
            units: Number(units[keyOf(g)] || g.units),
            reason,
          },
          headers: once,
        }),
      ),
  });
  const mayTake = !ofArrival && (me.data?.rights.includes('take-in') ?? false);
  const ready = going.length > 0 && reason.trim() !== '' && supplier !== '';
  return (
    <RecordBody
      record={record}
      words={WORDS}
      keep={going.length === 0 ? 'Send back' : `Send back ${plural(going.length, 'line', 'lines')}`}
      ready={ready}
      wide
      more={!ready && <span className="note">A supplier, a reason and one quantity are needed</span>}
    >
      <div className="grid gap-4 sm:grid-cols-[1fr_2fr]">
        <SelectField name="supplier" label={WORDS.supplier.label} autoFocus>
          <option value="">Choose a supplier</option>
          {suppliers.data?.map((s) => (
            <option key={s.code} value={s.code}>
              {s.name}
            </option>
          ))}
        </SelectField>
        <TextField name="reason" label={mayTake ? 'Why they go back, or are good after all' : WORDS.reason.label} maxLength={200} />
      </div>
      <LinesTable>
        <thead>
          <tr>
            <td />
            <th>{ofArrival ? 'Still here' : 'Stands apart'}</th>
            <th>Why</th>
            <th>At</th>
            <th>Came with</th>
            <th className="num">Units back</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {theirs.map((g) => (
            <AsideRow
              key={keyOf(g)}
              goods={g}
              units={units[keyOf(g)] ?? ''}
              onUnits={(typed) => setValue('units', { ...units, [keyOf(g)]: typed })}
              onTake={mayTake && reason.trim() !== '' && !take.isPending ? () => take.mutate(g) : null}
            />
          ))}
        </tbody>
      </LinesTable>
      {theirs.length === 0 && <p className="note">Nothing of theirs stands apart.</p>}
      {theirs.length > 1 && (
        <div>
          <TextButton type="button" onClick={() => setValue('units', Object.fromEntries(theirs.map((g) => [keyOf(g), String(g.units)])))}>
            All of these go back
          </TextButton>
        </div>
      )}
      <ProblemNote problem={take.error} />
    </RecordBody>
  );
}

function AsideRow({
  goods: g,
  units,
  onUnits,
  onTake,
}: {
  goods: Aside;
  units: string;
  onUnits: (units: string) => void;
  /** Null where they may not be taken into stock, or no reason is given yet. */
  onTake: (() => void) | null;
}) {
  return (
    <tr>
      <PictureCell>
        <Picture name={g.picture} size={30} />
      </PictureCell>
      <td>
        <b>{g.name}</b>
        <span className="note">
          {g.words}
          {g.lot && `, ${g.lot}`}
        </span>
      </td>
      <td>{g.reason ?? g.condition.replace('-', ' ')}</td>
      <td className="code">{g.place}</td>
      <td className="code">{g.order ?? ''}</td>
      <td className="num" style={{ width: 96 }}>
        <Input
          className="num"
          inputMode="numeric"
          aria-label={`Units of ${g.name} that go back`}
          value={units}
          onChange={(e) => onUnits(e.target.value.trim())}
        />
      </td>
      <td>
        <TextButton type="button" onClick={() => onUnits(units === '' ? String(g.units) : '')}>
          {units === '' ? 'all of it' : 'none'}
        </TextButton>
        {onTake && (
          <TextButton type="button" className="block" onClick={onTake}>
            into stock
          </TextButton>
        )}
      </td>
    </tr>
  );
}
