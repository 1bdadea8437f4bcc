import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useFieldArray, useForm, useWatch } from 'react-hook-form';
import { useNavigate, useParams } from 'react-router';
import { api, ask, ifMatch, ProblemError, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { Field } from '../../ui/field';
import { Glyph } from '../../ui/glyph';
import { Picture, PICTURE_NAMES } from '../../ui/picture';
import { Sheet } from '../../ui/sheet';
import { ProblemNote, Shown } from '../../ui/states';

interface Pack {
  name: string;
  plural: string;
  factor: string;
  weightG: string;
  lengthMm: string;
  widthMm: string;
  heightMm: string;
  barcodes: string;
}
interface Values {
  sku: string;
  name: string;
  className: string;
  picture: string;
  tracking: 'none' | 'lot' | 'lot-expiry';
  rotation: 'fifo' | 'fefo';
  cost: string;
  neverHoldsUp: boolean;
  home: string;
  packs: Pack[];
}

const text = (n: number | null) => (n === null ? '' : String(n));
const number = (t: string) => (t.trim() === '' ? null : Number(t));
const blank: Pack = {
  name: '',
  plural: '',
  factor: '',
  weightG: '',
  lengthMm: '',
  widthMm: '',
  heightMm: '',
  barcodes: '',
};
const fresh: Values = {
  sku: '',
  name: '',
  className: '',
  picture: 'box',
  tracking: 'none',
  rotation: 'fifo',
  cost: '',
  neverHoldsUp: false,
  home: '',
  packs: [{ ...blank, name: 'piece', plural: 'pieces', factor: '1' }],
};

function valuesOf(item: Dto['ItemDto']): Values {
  return {
    ...item,
    tracking: item.tracking as Values['tracking'],
    rotation: item.rotation as Values['rotation'],
    cost: item.cost ? item.cost.replace(/0{1,4}$/, '') : '',
    home: item.home ?? '',
    packs: [...item.packs].reverse().map((p) => ({
      name: p.name,
      plural: p.plural,
      factor: String(p.factor),
      weightG: text(p.weightG),
      lengthMm: text(p.lengthMm),
      widthMm: text(p.widthMm),
      heightMm: text(p.heightMm),
      barcodes: p.barcodes.join(' '),
    })),
  };
}

/** Makes or changes an item: its names, how it is tracked, its ladder of pack units with their barcodes. */
export function ItemForm() {
  const { sku } = useParams();
  const query = useQuery({
    queryKey: ['item', sku],
    queryFn: () => ask(api.GET('/api/items/{sku}', { params: { path: { sku: sku ?? '' } } })),
    enabled: sku !== undefined,
  });
  if (sku && !query.data) return <Shown query={query}>{() => null}</Shown>;
  return <Form key={query.data?.version ?? 'new'} item={query.data} />;
}

function Form({ item }: { item: Dto['ItemDto'] | undefined }) {
  const me = useMe();
  const navigate = useNavigate();
  const client = useQueryClient();
  const form = useForm<Values>({ defaultValues: item ? valuesOf(item) : fresh });
  const packs = useFieldArray({ control: form.control, name: 'packs' });
  const picture = useWatch({ control: form.control, name: 'picture' });
  const save = useMutation({
    mutationFn: ({ cost, home, packs: list, ...v }: Values) => {
      const { sku, name, className, tracking, rotation, neverHoldsUp } = v;
      const body = {
        sku,
        name,
        className,
        picture: v.picture,
        tracking,
        rotation,
        neverHoldsUp,
        home: home.trim() || null,
        ...(me.data?.seesCosts ? { cost: cost.trim() || null } : {}),
        packs: list.map((p) => ({
          name: p.name,
          plural: p.plural,
          factor: Number(p.factor),
          weightG: number(p.weightG),
          lengthMm: number(p.lengthMm),
          widthMm: number(p.widthMm),
          heightMm: number(p.heightMm),
          barcodes: p.barcodes.split(/\s+/).filter(Boolean),
        })),
      };
      return ask(
        item
          ? api.PUT('/api/items/{sku}', {
              params: { path: { sku: item.sku } },
              headers: ifMatch(item.version),
              body,
            })
          : api.POST('/api/items', { body }),
      );
    },
    onSuccess: async (made) => {
      await client.invalidateQueries();
      void navigate(`/shelves/items/${made.code}`);
    },
  });
  const fields = save.error instanceof ProblemError ? save.error.fields : {};
  const packFields = ['name', 'plural', 'factor', 'weightG', 'lengthMm', 'widthMm', 'heightMm'] as const;
  return (
    <Sheet
      address={item ? `items/${item.sku}/edit` : 'items/new'}
      title={item ? `Change ${item.name}` : 'New item'}
      back={item ? `/shelves/items/${item.sku}` : '/shelves/items'}
    >
      <form className="flex flex-col flex-1 gap-3 mt-3" onSubmit={(e) => void form.handleSubmit((v) => save.mutate(v))(e)}>
        <div className="grid gap-4" style={{ gridTemplateColumns: '1fr 2fr 1.4fr' }}>
          <Field label="SKU" fault={fields['sku']}>
            <input className="input code" readOnly={item !== undefined} autoFocus={!item} {...form.register('sku')} />
          </Field>
          <Field label="Name" fault={fields['name']}>
            <input className="input" {...form.register('name')} />
          </Field>
          <Field label="Class" fault={fields['className']}>
            <input className="input" {...form.register('className')} />
          </Field>
        </div>
        <div className="grid gap-4 items-end" style={{ gridTemplateColumns: 'auto 1fr 1.2fr 1.4fr 1fr 1fr' }}>
          <Picture name={picture} size={44} />
          <Field label="Picture">
            <select className="input" {...form.register('picture')}>
              {PICTURE_NAMES.map((p) => (
                <option key={p}>{p}</option>
              ))}
            </select>
          </Field>
          <Field label="Tracked by">
            <select className="input" {...form.register('tracking')}>
              <option value="none">nothing</option>
              <option value="lot">lot</option>
              <option value="lot-expiry">lot and date</option>
            </select>
          </Field>
          <Field label="What goes first">
            <select className="input" {...form.register('rotation')}>
              <option value="fifo">first in</option>
              <option value="fefo">first to expire</option>
            </select>
          </Field>
          <Field label="Home bin" fault={fields['home']}>
            <input className="input code" {...form.register('home')} />
          </Field>
          {me.data?.seesCosts && (
            <Field label="Cost, GBP" fault={fields['cost']}>
              <input className="input num" inputMode="decimal" {...form.register('cost')} />
            </Field>
          )}
        </div>
        <label className="flex gap-2 items-center">
          <input type="checkbox" {...form.register('neverHoldsUp')} /> Never holds up an order
        </label>
        <table className="lines">
          <thead>
            <tr>
              <th>One</th>
              <th>Many</th>
              <th className="num">Holds</th>
              <th className="num">Weight, g</th>
              <th className="num">Long, mm</th>
              <th className="num">Wide</th>
              <th className="num">High</th>
              <th>Barcodes, a space between</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {packs.fields.map((row, i) => (
              <tr key={row.id}>
                {packFields.map((f, n) => (
                  <td key={f} style={{ width: n < 2 ? 90 : 72 }}>
                    <input
                      className={`input ${n < 2 ? '' : 'num'}`}
                      aria-label={`${f} of pack ${i + 1}`}
                      {...form.register(`packs.${i}.${f}`)}
                      readOnly={f === 'factor' && i === 0}
                    />
                  </td>
                ))}
                <td>
                  <input
                    className="input code"
                    data-scan
                    aria-label={`Barcodes of pack ${i + 1}`}
                    {...form.register(`packs.${i}.barcodes`)}
                  />
                </td>
                <td>
                  <button type="button" aria-label={`Take pack ${i + 1} out`} onClick={() => packs.remove(i)} disabled={i === 0}>
                    <Glyph name="shut" />
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <button type="button" className="act-link self-start" onClick={() => packs.append({ ...blank })}>
          Another pack unit
        </button>
        <ProblemNote problem={save.error} />
        <div className="acts">
          <button className="act act-next" disabled={save.isPending}>
            Keep the item <Glyph name="go" size={13} />
          </button>
        </div>
      </form>
    </Sheet>
  );
}
