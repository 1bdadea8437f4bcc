import { useAct } from '../../api/use-act';
import { useForm } from 'react-hook-form';
import { api, ask, ifMatch, ProblemError, type Dto } from '../../api/client';
import { Field } from '../../ui/field';
import { Glyph } from '../../ui/glyph';
import { ProblemNote } from '../../ui/states';
import { BlockHead } from '../../ui/page';
import { Input } from '../../ui/input';
import { Button } from '../../ui/button';

interface Values {
  addressLine: string;
  city: string;
  postcode: string;
  links: Record<string, string>;
}

/** Mends what holds an order: its address, or codes that nobody knew. */
export function HoldForm({ order }: { order: Dto['OrderDto'] }) {
  const unknown = order.lines.filter((l) => !l.sku);
  const form = useForm<Values>({
    defaultValues: { addressLine: order.addressLine, city: order.city, postcode: order.postcode, links: {} },
  });
  const save = useAct({
    act: ({ links, ...address }: Values, once) => {
      const named = Object.entries(links)
        .filter(([, sku]) => sku.trim() !== '')
        .map(([line, sku]) => ({ line: Number(line), sku: sku.trim() }));
      const given = Object.fromEntries(Object.entries(address).filter(([, v]) => v.trim() !== ''));
      return ask(
        api.POST('/api/orders/{code}/clear-hold', {
          params: { path: { code: order.code } },
          headers: { ...once, ...ifMatch(order.version) },
          body: { ...given, links: named },
        }),
      );
    },
  });
  const fields = save.error instanceof ProblemError ? save.error.fields : {};
  return (
    <form className="mt-4 flex flex-col gap-3" onSubmit={(e) => void form.handleSubmit((v) => save.mutate(v))(e)}>
      <BlockHead>
        <h2>Let it go on</h2>
      </BlockHead>
      <div className="grid gap-4" style={{ gridTemplateColumns: '2fr 1.2fr 1fr' }}>
        <Field label="Street" fault={fields['addressLine']}>
          <Input {...form.register('addressLine')} />
        </Field>
        <Field label="Town" fault={fields['city']}>
          <Input {...form.register('city')} />
        </Field>
        <Field label="Postcode" fault={fields['postcode']}>
          <Input {...form.register('postcode')} />
        </Field>
      </div>
      {unknown.map((l) => (
        <Field key={l.line} label={`Line ${l.line}: their code ${l.channelSku} is our SKU`} fault={fields['links']}>
          <Input className="code" style={{ maxWidth: 260 }} {...form.register(`links.${l.line}`)} />
        </Field>
      ))}
      <ProblemNote problem={save.error} />
      <Button next className="self-start" disabled={save.isPending}>
        Clear the hold <Glyph name="go" size={13} />
      </Button>
    </form>
  );
}
