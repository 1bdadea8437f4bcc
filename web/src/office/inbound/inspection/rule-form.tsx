import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { Button } from '../../../ui/button';
import { NumberField, SelectField, TextField } from '../../../ui/record/fields';
import { type FieldWords, RecordBody } from '../../../ui/record/record-form';
import { useRecord } from '../../../ui/record/use-record';
import { useSuppliers } from '../../../api/queries';

type Rule = Dto['InspectionRuleDto'];
interface Values {
  sku: string;
  supplier: string;
  kind: Rule['kind'];
  n: string;
  checklistId: string;
}
const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  sku: { label: 'Item, or all' },
  supplier: { label: 'From' },
  kind: { label: 'How often' },
  n: { label: 'Number' },
  checklistId: { label: 'Checklist' },
};
const valuesOf = (rule: Rule | null): Values => ({
  sku: rule?.sku ?? '',
  supplier: rule?.supplierCode ?? '',
  kind: rule?.kind ?? 'always',
  n: String(rule?.n ?? 3),
  checklistId: rule?.checklistId ? String(rule.checklistId) : '',
});

/** Says which goods are looked at, from whom, how often and by which list. */
export function RuleForm({ rule, lists, onDone }: { rule: Rule | null; lists: readonly Dto['ChecklistDto'][]; onDone: () => void }) {
  const suppliers = useSuppliers();
  const record = useRecord<Values, unknown>({
    source: { values: valuesOf(rule), version: rule?.version },
    save: (v, version, once) => {
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
              headers: { ...once, ...ifMatch(version ?? rule.version) },
              body,
            })
          : api.POST('/api/inspection-rules', { body, headers: once }),
      );
    },
    onSaved: onDone,
  });
  const [sku, supplier, kind] = record.form.watch(['sku', 'supplier', 'kind']);
  const isNamed = sku.trim() !== '' || supplier !== '';
  return (
    <RecordBody
      record={record}
      words={WORDS}
      keep={isNamed ? 'Keep this rule' : 'Name an item or a supplier'}
      ready={isNamed}
      wide
      more={
        <Button type="button" onClick={onDone}>
          Leave it
        </Button>
      }
    >
      <div className="grid gap-3 sm:grid-cols-[1fr_1.2fr_1.2fr_64px_1.2fr]">
        <TextField name="sku" label={WORDS.sku.label} code data-scan autoFocus placeholder="all goods" />
        <SelectField name="supplier" label={WORDS.supplier.label}>
          <option value="">anybody</option>
          {suppliers.data?.map((s) => (
            <option key={s.code} value={s.code}>
              {s.name}
            </option>
          ))}
        </SelectField>
        <SelectField name="kind" label={WORDS.kind.label}>
          <option value="always">each delivery</option>
          <option value="every">one delivery in</option>
          <option value="until-proven">until so many passed</option>
        </SelectField>
        <NumberField name="n" label={WORDS.n.label} readOnly={kind === 'always'} />
        <SelectField name="checklistId" label={WORDS.checklistId.label}>
          <option value="">none</option>
          {lists.map((c) => (
            <option key={c.id} value={c.id}>
              {c.name}
            </option>
          ))}
        </SelectField>
      </div>
    </RecordBody>
  );
}
