import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../api/use-act';
import { key } from '../../api/keys';
import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { api, ask, ProblemError, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { plural } from '../../ui/format';
import { Field } from '../../ui/field';
import { Glyph } from '../../ui/glyph';
import { Picture } from '../../ui/picture';
import { Sheet } from '../../ui/sheet';
import { Empty, ProblemNote, Shown } from '../../ui/states';
import { Select, Input } from '../../ui/input';
import { LinesTable, PictureCell } from '../../ui/table';
import { TextButton, Button } from '../../ui/button';
import { Acts } from '../../ui/page';

type Aside = Dto['AsideDto'];

const keyOf = (g: Aside) => `${g.itemId}/${g.lotId}/${g.condition}/${g.placeId}`;

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
            <Form key={list.map(keyOf).join()} list={list} ofArrival={arrival !== null} />
          )
        }
      </Shown>
    </Sheet>
  );
}

function Form({ list, ofArrival }: { list: readonly Aside[]; ofArrival: boolean }) {
  const navigate = useNavigate();
  const me = useMe();
  const suppliers = useQuery({ queryKey: key('suppliers'), queryFn: () => ask(api.GET('/api/suppliers')) });
  const [supplier, setSupplier] = useState(list.find((g) => g.supplierCode)?.supplierCode ?? '');
  const [reason, setReason] = useState('');
  const [chosen, setChosen] = useState<Readonly<Record<string, string>>>({});
  const theirs = list.filter((g) => g.supplierCode === supplier || g.supplierCode === null);
  const going = theirs.filter((g) => Number(chosen[keyOf(g)] ?? 0) > 0);
  const send = useAct({
    act: (_: void, once) =>
      ask(
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
              units: Number(chosen[keyOf(g)]),
            })),
          },
          headers: once,
        }),
      ),
    onDone: ({ code }) => {
      void navigate(`/inbound/returns/${code}`);
    },
  });
  const take = useAct({
    act: (g: Aside, once) =>
      ask(
        api.POST('/api/supplier-returns/aside/take-in', {
          body: {
            itemId: g.itemId,
            lotId: g.lotId,
            condition: g.condition as 'held' | 'damaged' | 'apart',
            placeId: g.placeId,
            units: Number(chosen[keyOf(g)] || g.units),
            reason,
          },
          headers: once,
        }),
      ),
  });
  const mayTake = !ofArrival && (me.data?.rights.includes('take-in') ?? false);
  const fields = send.error instanceof ProblemError ? send.error.fields : {};
  const ready = going.length > 0 && reason.trim() !== '' && supplier !== '';
  return (
    <form
      className="flex flex-col flex-1 gap-3 mt-3"
      onSubmit={(e) => {
        e.preventDefault();
        send.mutate();
      }}
    >
      <div className="grid gap-4" style={{ gridTemplateColumns: '1fr 2fr' }}>
        <Field label="To" fault={fields['supplier']}>
          <Select autoFocus value={supplier} onChange={(e) => setSupplier(e.target.value)}>
            <option value="">Choose a supplier</option>
            {suppliers.data?.map((s) => (
              <option key={s.code} value={s.code}>
                {s.name}
              </option>
            ))}
          </Select>
        </Field>
        <Field label={mayTake ? 'Why they go back, or are good after all' : 'Why they go back'} fault={fields['reason']}>
          <Input maxLength={200} value={reason} onChange={(e) => setReason(e.target.value)} />
        </Field>
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
              units={chosen[keyOf(g)] ?? ''}
              onUnits={(units) => setChosen({ ...chosen, [keyOf(g)]: units })}
              onTake={mayTake && reason.trim() !== '' && !take.isPending ? () => take.mutate(g) : null}
            />
          ))}
        </tbody>
      </LinesTable>
      {theirs.length === 0 && <p className="note">Nothing of theirs stands apart.</p>}
      {theirs.length > 1 && (
        <div>
          <TextButton
            type="button"

            onClick={() => setChosen(Object.fromEntries(theirs.map((g) => [keyOf(g), String(g.units)])))}
          >
            All of these go back
          </TextButton>
        </div>
      )}
      <ProblemNote problem={send.error ?? take.error} />
      <Acts>
        <Button next disabled={send.isPending || !ready}>
          {going.length === 0 ? 'Send back' : `Send back ${plural(going.length, 'line', 'lines')}`} <Glyph name="go" size={13} />
        </Button>
        {!ready && <span className="note">A supplier, a reason and one quantity are needed</span>}
      </Acts>
    </form>
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
          {g.lot && `, lot ${g.lot}`}
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
