import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { useState } from 'react';
import { api, ask, ifMatch, ProblemError, type Dto } from '../../../api/client';
import { Field } from '../../../ui/field';
import { Glyph } from '../../../ui/glyph';
import { ProblemNote } from '../../../ui/states';
import { Input, Select } from '../../../ui/input';
import { Acts } from '../../../ui/page';
import { Button } from '../../../ui/button';

type Rule = Dto['InspectionRuleDto'];

/** Says which goods are looked at, from whom, how often and by which list. */
export function RuleForm({ rule, lists, onDone }: { rule: Rule | null; lists: readonly Dto['ChecklistDto'][]; onDone: () => void }) {
  const suppliers = useQuery({ queryKey: key('suppliers'), queryFn: () => ask(api.GET('/api/suppliers')) });
  const [v, setV] = useState({
    sku: rule?.sku ?? '',
    supplier: rule?.supplierCode ?? '',
    kind: rule?.kind ?? 'always',
    n: String(rule?.n ?? 3),
    checklistId: rule?.checklistId ? String(rule.checklistId) : '',
  });
  const save = useAct({
    act: (_: void, once) => {
      const body = {
        sku: v.sku.trim() || null,
        supplier: v.supplier || null,
        kind: v.kind,
        n: v.kind === 'always' ? 1 : Number(v.n),
        checklistId: v.checklistId ? Number(v.checklistId) : null,
      };
      return ask(
        rule
          ? api.PUT('/api/inspection-rules/{id}', {
              params: { path: { id: rule.id } },
              headers: { ...once, ...ifMatch(rule.version) },
              body,
            })
          : api.POST('/api/inspection-rules', { body, headers: once }),
      );
    },
    onDone: () => {
      onDone();
    },
  });
  const fields = save.error instanceof ProblemError ? save.error.fields : {};
  const set = (name: keyof typeof v) => (e: { target: { value: string } }) => setV({ ...v, [name]: e.target.value });
  return (
    <form
      className="flex flex-col gap-3 mt-2 mb-2"
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <div className="grid gap-3" style={{ gridTemplateColumns: '1fr 1.2fr 1.2fr 64px 1.2fr' }}>
        <Field label="Item, or all" fault={fields['sku']}>
          <Input className="code" data-scan autoFocus placeholder="all goods" value={v.sku} onChange={set('sku')} />
        </Field>
        <Field label="From" fault={fields['supplier']}>
          <Select value={v.supplier} onChange={set('supplier')}>
            <option value="">anybody</option>
            {suppliers.data?.map((s) => (
              <option key={s.code} value={s.code}>
                {s.name}
              </option>
            ))}
          </Select>
        </Field>
        <Field label="How often">
          <Select value={v.kind} onChange={set('kind')}>
            <option value="always">each delivery</option>
            <option value="every">one delivery in</option>
            <option value="until-proven">until so many passed</option>
          </Select>
        </Field>
        <Field label="Number" fault={fields['n']}>
          <Input
            className="num"
            inputMode="numeric"
            disabled={v.kind === 'always'}
            value={v.kind === 'always' ? '' : v.n}
            onChange={set('n')}
          />
        </Field>
        <Field label="Checklist" fault={fields['checklistId']}>
          <Select value={v.checklistId} onChange={set('checklistId')}>
            <option value="">none</option>
            {lists.map((c) => (
              <option key={c.id} value={c.id}>
                {c.name}
              </option>
            ))}
          </Select>
        </Field>
      </div>
      {Object.keys(fields).length === 0 && <ProblemNote problem={save.error} />}
      <Acts style={{ marginTop: 0 }}>
        <Button next disabled={save.isPending || (v.sku.trim() === '' && v.supplier === '')}>
          {v.sku.trim() === '' && v.supplier === '' ? 'Name an item or a supplier' : 'Keep this rule'} <Glyph name="go" size={13} />
        </Button>
        <Button type="button" onClick={onDone}>
          Leave it
        </Button>
      </Acts>
    </form>
  );
}
