import { useQuery } from '@tanstack/react-query';
import { useNavigate, useParams } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe } from '../../../api/queries';
import { NumberField, TextField } from '../../../ui/record/fields';
import { type FieldWords, RecordForm } from '../../../ui/record/record-form';
import { useRecord } from '../../../ui/record/use-record';
import { ShownSheet } from '../../../ui/sheet';

interface Values {
  code: string;
  lengthMm: string;
  widthMm: string;
  heightMm: string;
  tareG: string;
  mostG: string;
  cost: string;
  lowAt: string;
  /** The item that it is kept as; empty where it is none. */
  sku: string;
  /** By site, as "s1"; empty where nobody counted. */
  stock: Record<string, string>;
}

const FRESH: Values = { code: '', lengthMm: '', widthMm: '', heightMm: '', tareG: '', mostG: '', cost: '', lowAt: '0', sku: '', stock: {} };
const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  code: { label: 'Code' },
  lengthMm: { label: 'Length inside, mm' },
  widthMm: { label: 'Width inside, mm' },
  heightMm: { label: 'Height inside, mm' },
  tareG: { label: 'Weighs empty, g' },
  mostG: { label: 'Carries, g' },
  cost: { label: 'Costs, each' },
  lowAt: { label: 'Say so at how many left' },
  sku: { label: 'Kept as item' },
  stock: { label: 'How many there are', show: (s: Values['stock']) => Object.values(s).filter(Boolean).join(', ') },
};

const valuesOf = (b: Dto['BoxDto']): Values => ({
  code: b.code,
  lengthMm: String(b.lengthMm),
  widthMm: String(b.widthMm),
  heightMm: String(b.heightMm),
  tareG: String(b.tareG),
  mostG: String(b.mostG),
  cost: b.cost ?? '',
  lowAt: String(b.lowAt),
  sku: b.sku ?? '',
  stock: Object.fromEntries(b.stock.map((k) => [`s${k.siteId}`, String(k.units)])),
});

/** What was not typed is not a number, and the server says so. */
const number = (text: string) => (text.trim() === '' ? (null as unknown as number) : Number(text));

const bodyOf = (v: Values): Dto['EditBoxDto'] => ({
  lengthMm: number(v.lengthMm),
  widthMm: number(v.widthMm),
  heightMm: number(v.heightMm),
  tareG: number(v.tareG),
  mostG: number(v.mostG),
  lowAt: number(v.lowAt),
  sku: v.sku.trim() || null,
  ...(v.cost.trim() ? { cost: v.cost.trim() } : {}),
  stock: Object.entries(v.sku.trim() ? {} : v.stock)
    .filter(([, units]) => units.trim() !== '')
    .map(([site, units]) => ({ siteId: Number(site.slice(1)), units: Number(units) })),
});

/** Makes or changes a box. */
export function BoxForm() {
  const { code } = useParams();
  const query = useQuery({
    queryKey: key('carton', code),
    queryFn: () => ask(api.GET('/api/boxes/{code}', { params: { path: { code: code ?? '' } } })),
    enabled: code !== undefined,
  });
  if (code)
    return (
      <ShownSheet query={query} back="/setup/boxes">
        {(box) => <Form key={code} box={box} />}
      </ShownSheet>
    );
  return <Form box={undefined} />;
}

function Form({ box }: { box: Dto['BoxDto'] | undefined }) {
  const navigate = useNavigate();
  const me = useMe();
  const record = useRecord<Values, { code: string }>({
    source: { values: box ? valuesOf(box) : FRESH, version: box?.version },
    save: (v, version, once) =>
      ask(
        version === undefined
          ? api.POST('/api/boxes', { body: { ...bodyOf(v), code: v.code }, headers: once })
          : api.PUT('/api/boxes/{code}', {
              params: { path: { code: v.code } },
              headers: { ...once, ...ifMatch(version) },
              body: bodyOf(v),
            }),
      ),
    onSaved: () => void navigate('/setup/boxes'),
  });
  const sku = record.form.watch('sku');
  return (
    <RecordForm
      record={record}
      words={WORDS}
      address={box ? `boxes/${box.code}` : 'boxes/new'}
      title={box ? `Box ${box.code}` : 'New box'}
      back="/setup/boxes"
      keep="Keep the box"
    >
      <TextField name="code" label="Code" code autoFocus={!box} readOnly={box !== undefined} />
      <div className="grid grid-cols-3 gap-4">
        <NumberField name="lengthMm" label={WORDS.lengthMm.label} />
        <NumberField name="widthMm" label={WORDS.widthMm.label} />
        <NumberField name="heightMm" label={WORDS.heightMm.label} />
        <NumberField name="tareG" label={WORDS.tareG.label} />
        <NumberField name="mostG" label={WORDS.mostG.label} />
        {me.data?.seesCosts && <NumberField name="cost" label={WORDS.cost.label} placeholder="0" />}
      </div>
      <TextField name="sku" label={WORDS.sku.label} code placeholder="its SKU, where it is bought and counted like goods" />
      {sku.trim() ? (
        <p className="note">
          Each parcel that is closed takes one out of its bin; it is bought, received, counted and planned like any item.{' '}
          {box?.sku && (box.stock.map((k) => `${k.units} at ${k.site}`).join(', ') || 'There are none')}
        </p>
      ) : (
        <p className="note">How many there are; each parcel that is closed takes one</p>
      )}
      <div className="grid grid-cols-3 gap-4">
        {!sku.trim() &&
          me.data?.sites.map((s) => <NumberField key={s.id} name={`stock.s${s.id}`} label={s.name} placeholder="not counted" />)}
        <NumberField name="lowAt" label={WORDS.lowAt.label} />
      </div>
    </RecordForm>
  );
}
