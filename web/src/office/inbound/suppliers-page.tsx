import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { micro, moneyText } from '@vectrum/core/money';
import { packName } from '@vectrum/core/quantity';
import { useForm } from 'react-hook-form';
import { Link, Outlet, useNavigate, useParams } from 'react-router';
import { api, ask, ifMatch, ProblemError, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { ExportLinks } from '../../ui/export-links';
import { Field } from '../../ui/field';
import { Glyph } from '../../ui/glyph';
import { OpenRow } from '../../ui/open-row';
import { Picture } from '../../ui/picture';
import { Sheet, Waybill } from '../../ui/sheet';
import { Empty, ProblemNote, Shown } from '../../ui/states';
import { readPriceList } from './price-list';

/** Suppliers, with one open beside the list. */
export function SuppliersPage() {
  const { code: open } = useParams();
  const me = useMe();
  const query = useQuery({ queryKey: ['suppliers', ''], queryFn: () => ask(api.GET('/api/suppliers')) });
  return (
    <div className="under-2" style={{ ['--list' as string]: '560px' }}>
      <section className="list" aria-label="Suppliers">
        <div className="filter">
          <nav className="words">
            <Link to="/inbound">Orders</Link>
            <Link to="/inbound/suppliers" aria-current="true">
              Suppliers
            </Link>
          </nav>
          {!open && <ExportLinks list="suppliers" />}
          {me.data?.rights.includes('buy') && (
            <Link to="/inbound/suppliers/new" className="act-link">
              New supplier
            </Link>
          )}
        </div>
        <Shown query={query}>
          {(list) =>
            list.length === 0 ? (
              <Empty title="No suppliers yet">Make the first one, then its price list.</Empty>
            ) : (
              <table className="dense">
                <thead>
                  <tr>
                    <th>Supplier</th>
                    <th>Code</th>
                    <th>Ring</th>
                    <th className="num">Lead, days</th>
                  </tr>
                </thead>
                <tbody>
                  {list.map((s) => (
                    <OpenRow key={s.code} to={`/inbound/suppliers/${s.code}`} open={s.code === open}>
                      <td>{s.name}</td>
                      <td className="code">{s.code}</td>
                      <td className="mid">{s.phone}</td>
                      <td className="num">{s.leadDays}</td>
                    </OpenRow>
                  ))}
                </tbody>
              </table>
            )
          }
        </Shown>
      </section>
      <Outlet />
    </div>
  );
}

/** One supplier with what it sells. */
export function SupplierSheet() {
  const { code = '' } = useParams();
  const me = useMe();
  const query = useQuery({
    queryKey: ['supplier', code],
    queryFn: () => ask(api.GET('/api/suppliers/{code}', { params: { path: { code } } })),
  });
  return (
    <Shown query={query}>
      {(s) => (
        <Sheet address={`inbound/suppliers/${s.code}`} title={s.name} back="/inbound/suppliers">
          <Waybill
            cells={[
              { cap: 'Code', value: <span className="code">{s.code}</span> },
              { cap: 'Ring', value: s.phone || 'no number', note: s.email },
              { cap: 'Lead time', value: `${s.leadDays} days` },
              { cap: 'Currency', value: s.currency },
            ]}
          />
          <table className="lines">
            <thead>
              <tr>
                <th />
                <th>Sells</th>
                <th>Their code</th>
                <th>In</th>
                <th className="num">Price</th>
              </tr>
            </thead>
            <tbody>
              {s.items.map((i) => {
                const pack = i.packs.find((p) => p.id === i.packId);
                return (
                  <tr key={i.sku}>
                    <td className="pc">
                      <Picture name={i.picture} size={30} />
                    </td>
                    <td>
                      <b>
                        <Link to={`/shelves/items/${i.sku}`}>{i.name}</Link>
                      </b>
                      <span className="note code">{i.sku}</span>
                    </td>
                    <td className="code">{i.supplierSku}</td>
                    <td>{pack && packName(pack)}</td>
                    <td className="num">{i.price ? moneyText(micro(i.price), s.currency) : ''}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          {s.items.length === 0 && <Empty title="Nothing listed yet">Change the supplier to add what it sells.</Empty>}
          {me.data?.rights.includes('buy') && (
            <div className="acts">
              <Link className="act act-next" to="/inbound/new">
                Write an order <Glyph name="go" size={13} />
              </Link>
              <Link className="act" to={`/inbound/suppliers/${s.code}/edit`}>
                Change
              </Link>
            </div>
          )}
        </Sheet>
      )}
    </Shown>
  );
}

interface Values {
  code: string;
  name: string;
  email: string;
  phone: string;
  currency: string;
  leadDays: number;
  priceList: string;
}

const listText = (s: Dto['SupplierSheetDto']) =>
  s.items
    .map((i) =>
      [i.sku, i.packs.find((p) => p.id === i.packId)?.factor ?? 1, i.supplierSku, (i.price ?? '0').replace(/\.?0+$/, '')].join(', '),
    )
    .join('\n');

/** Makes or changes a supplier and its price list. */
export function SupplierForm() {
  const { code } = useParams();
  const query = useQuery({
    queryKey: ['supplier', code],
    queryFn: () => ask(api.GET('/api/suppliers/{code}', { params: { path: { code: code ?? '' } } })),
    enabled: code !== undefined,
  });
  if (code && !query.data) return <Shown query={query}>{() => null}</Shown>;
  return <Form key={query.data?.version ?? 'new'} supplier={query.data} />;
}

function Form({ supplier }: { supplier: Dto['SupplierSheetDto'] | undefined }) {
  const navigate = useNavigate();
  const client = useQueryClient();
  const form = useForm<Values>({
    defaultValues: supplier
      ? { ...supplier, priceList: listText(supplier) }
      : { code: '', name: '', email: '', phone: '', currency: 'GBP', leadDays: 14, priceList: '' },
  });
  const save = useMutation({
    mutationFn: async ({ priceList, ...v }: Values) => {
      const body = {
        code: v.code,
        name: v.name,
        email: v.email,
        phone: v.phone,
        currency: v.currency,
        leadDays: Number(v.leadDays),
        items: readPriceList(priceList),
      };
      return ask(
        supplier
          ? api.PUT('/api/suppliers/{code}', {
              params: { path: { code: supplier.code } },
              headers: ifMatch(supplier.version),
              body,
            })
          : api.POST('/api/suppliers', { body }),
      );
    },
    onSuccess: async (made) => {
      await client.invalidateQueries();
      void navigate(`/inbound/suppliers/${made.code}`);
    },
  });
  const fields = save.error instanceof ProblemError ? save.error.fields : {};
  return (
    <Sheet
      address={supplier ? `inbound/suppliers/${supplier.code}/edit` : 'inbound/suppliers/new'}
      title={supplier ? `Change ${supplier.name}` : 'New supplier'}
      back="/inbound/suppliers"
    >
      <form className="flex flex-col flex-1 gap-3 mt-3 max-w-[640px]" onSubmit={(e) => void form.handleSubmit((v) => save.mutate(v))(e)}>
        <div className="grid grid-cols-2 gap-4">
          <Field label="Name" fault={fields['name']}>
            <input className="input" autoFocus {...form.register('name')} />
          </Field>
          <Field label="Code" fault={fields['code']}>
            <input className="input code" readOnly={supplier !== undefined} {...form.register('code')} />
          </Field>
          <Field label="Mail for orders" fault={fields['email']}>
            <input className="input" type="email" {...form.register('email')} />
          </Field>
          <Field label="Phone" fault={fields['phone']}>
            <input className="input" {...form.register('phone')} />
          </Field>
          <Field label="Currency" fault={fields['currency']}>
            <input className="input" maxLength={3} {...form.register('currency')} />
          </Field>
          <Field label="Lead time, days" fault={fields['leadDays']}>
            <input className="input" inputMode="numeric" {...form.register('leadDays')} />
          </Field>
        </div>
        <Field label="Price list, one a line: SKU, pack of, their code, price of one pack" fault={fields['items']}>
          <textarea className="input code" style={{ height: 180, padding: 8 }} {...form.register('priceList')} />
        </Field>
        <ProblemNote problem={save.error} />
        <div className="acts">
          <button className="act act-next" disabled={save.isPending}>
            Keep the supplier <Glyph name="go" size={13} />
          </button>
        </div>
      </form>
    </Sheet>
  );
}
