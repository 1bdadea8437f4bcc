import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { api, ask } from '../../../api/client';
import { key } from '../../../api/keys';
import { useAct } from '../../../api/use-act';
import { Button } from '../../../ui/button';
import { Field, Words } from '../../../ui/field';
import { Input, Select } from '../../../ui/input';
import { Acts } from '../../../ui/page';
import { Sheet } from '../../../ui/sheet';
import { Empty, ProblemNote, Shown } from '../../../ui/states';

/** Plans what is to be built, with how many can be; or takes something apart. */
export function BuildForm() {
  const query = useQuery({ queryKey: key('builds', 'buildable'), queryFn: () => ask(api.GET('/api/builds/buildable')) });
  const [what, setWhat] = useState<'build' | 'apart'>('build');
  return (
    <Sheet address="shelves/builds/new" title="Build something" back="/shelves/builds">
      <div className="mt-3 mb-3">
        <Words
          label="What is done"
          value={what}
          words={[
            { value: 'build', says: 'Build' },
            { value: 'apart', says: 'Take apart' },
          ]}
          onChange={setWhat}
        />
      </div>
      {what === 'apart' ? (
        <Apart />
      ) : (
        <Shown query={query} rows={3}>
          {(list) =>
            list.length === 0 ? (
              <Empty title="Nothing is built here yet">
                Say on the form of an item that it is an assembly, and of which parts it is built.
              </Empty>
            ) : (
              <Build list={list} />
            )
          }
        </Shown>
      )}
    </Sheet>
  );
}

interface Choice {
  sku: string;
  item: string;
  site: string;
  siteId: number;
  buildable: number;
  scarce: string | null;
}

function Build({ list }: { list: readonly Choice[] }) {
  const navigate = useNavigate();
  const [params] = useSearchParams();
  const nameOf = (c: Choice) => `${c.sku}/${c.siteId}`;
  const first = list.find((c) => c.sku === params.get('sku') && c.buildable > 0) ?? list.find((c) => c.buildable > 0) ?? list[0];
  const [chosen, setChosen] = useState(first ? nameOf(first) : '');
  const [units, setUnits] = useState(params.get('units') ?? '');
  const [note, setNote] = useState('');
  const choice = list.find((c) => nameOf(c) === chosen);
  const plan = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/builds', {
          body: { siteId: choice?.siteId ?? 0, sku: choice?.sku ?? '', units: Number(units), note },
          headers: once,
        }),
      ),
    onDone: ({ code }) => navigate(`/shelves/builds/${code}`),
  });
  const isNumber = /^[1-9]\d{0,6}$/.test(units.trim());
  return (
    <div className="grid gap-4" style={{ maxWidth: 560 }}>
      <Field label="What, and where">
        <Select autoFocus value={chosen} onChange={(e) => setChosen(e.target.value)}>
          {list.map((c) => (
            <option key={nameOf(c)} value={nameOf(c)}>
              {c.item}, {c.site}
            </option>
          ))}
        </Select>
      </Field>
      <Field label="How many">
        <Input className="num w-[110px]" inputMode="numeric" value={units} onChange={(e) => setUnits(e.target.value)} />
      </Field>
      {choice && (
        <p className={isNumber && Number(units) > choice.buildable ? 'stamped' : 'mid'}>
          {choice.buildable} can be built of what is free{choice.scarce && `; ${choice.scarce} allows no more`}.
        </p>
      )}
      <Field label="Note">
        <Input value={note} maxLength={200} onChange={(e) => setNote(e.target.value)} />
      </Field>
      <ProblemNote problem={plan.error} />
      <Acts>
        <Button type="button" next disabled={!isNumber || !choice || plan.isPending} onClick={() => plan.mutate()}>
          Plan it
        </Button>
      </Acts>
    </div>
  );
}

function Apart() {
  const navigate = useNavigate();
  const [v, setV] = useState({ sku: '', place: '', lot: '', units: '1', note: '' });
  const apart = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/builds/apart', {
          body: {
            sku: v.sku.trim(),
            place: v.place.trim(),
            units: Number(v.units),
            note: v.note,
            ...(v.lot.trim() ? { lot: v.lot.trim() } : {}),
          },
          headers: once,
        }),
      ),
    onDone: ({ code }) => navigate(`/shelves/builds/${code}`),
  });
  const field = (name: keyof typeof v, label: string, className = '') => (
    <Field label={label}>
      <Input className={className} value={v[name]} maxLength={200} onChange={(e) => setV({ ...v, [name]: e.target.value })} />
    </Field>
  );
  return (
    <div className="grid gap-4" style={{ maxWidth: 560 }}>
      <p className="mid">Its parts wait at the dock to be put away, each worth its share of what it was worth whole.</p>
      <div className="grid gap-4 sm:grid-cols-2">
        {field('sku', 'SKU', 'code')}
        {field('place', 'Where it lies', 'code')}
        {field('units', 'How many', 'num w-[110px]')}
        {field('lot', 'Lot or number, where it has one')}
      </div>
      {field('note', 'Why')}
      <ProblemNote problem={apart.error} />
      <Acts>
        <Button
          type="button"
          next
          disabled={!v.sku.trim() || !v.place.trim() || !(Number(v.units) > 0) || apart.isPending}
          onClick={() => apart.mutate()}
        >
          Take it apart
        </Button>
      </Acts>
    </div>
  );
}
