import { api, ask, ifMatch, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { CheckField, NumberField, SelectField, TextField } from '../../ui/record/fields';
import type { FieldWords } from '../../ui/record/record-form';
import { SetUpForm } from '../../ui/record/set-up-form';
import { useRecord } from '../../ui/record/use-record';

type Rule = Dto['BuyingRuleDto'];
interface Values {
  level: 'company' | 'class' | 'item';
  className: string;
  sku: string;
  siteId: string;
  servicePercent: string;
  reviewDays: string;
  supplier: string;
  likeSku: string;
  likePercent: string;
  roomUnits: string;
  isFixed: boolean;
  isDropped: boolean;
}
const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  level: { label: 'For' },
  className: { label: 'Class' },
  sku: { label: 'SKU' },
  siteId: { label: 'At' },
  servicePercent: { label: 'Met from the shelf, per cent' },
  reviewDays: { label: 'A chance to order every so many days' },
  supplier: { label: 'From this supplier' },
  likeSku: { label: 'New: sells like this SKU' },
  likePercent: { label: 'Per cent of it' },
  roomUnits: { label: 'There is room for, units' },
  isFixed: { label: 'By the point to order at that stands at the item' },
  isDropped: { label: 'It is bought no more' },
};
const FRESH: Values = {
  level: 'company',
  className: '',
  sku: '',
  siteId: '',
  servicePercent: '',
  reviewDays: '',
  supplier: '',
  likeSku: '',
  likePercent: '',
  roomUnits: '',
  isFixed: false,
  isDropped: false,
};

const numberOf = (text: string) => (text.trim() === '' ? null : Number(text));
const bodyOf = (v: Values): Dto['KeepBuyingRuleDto'] => ({
  ...(v.level === 'class' ? { className: v.className.trim() } : {}),
  ...(v.level === 'item' ? { sku: v.sku.trim() } : {}),
  siteId: numberOf(v.siteId),
  servicePercent: v.servicePercent.trim().replace(',', '.') || null,
  reviewDays: numberOf(v.reviewDays),
  supplier: v.level === 'item' ? v.supplier.trim() || null : null,
  likeSku: v.level === 'item' ? v.likeSku.trim() || null : null,
  likePercent: v.level === 'item' ? numberOf(v.likePercent) : null,
  roomUnits: v.level === 'item' ? numberOf(v.roomUnits) : null,
  isFixed: v.isFixed,
  isDropped: v.level === 'item' && v.isDropped,
});
const text = (v: number | string | null) => (v === null ? '' : String(v));
const valuesOf = (r: Rule): Values => ({
  level: r.sku ? 'item' : r.className ? 'class' : 'company',
  className: r.className ?? '',
  sku: r.sku ?? '',
  siteId: text(r.siteId),
  servicePercent: r.servicePercent === null ? '' : String(Number(r.servicePercent)),
  reviewDays: text(r.reviewDays),
  supplier: r.supplier ?? '',
  likeSku: r.likeSku ?? '',
  likePercent: text(r.likePercent),
  roomUnits: text(r.roomUnits),
  isFixed: r.isFixed,
  isDropped: r.isDropped,
});

/** How the company, a class or an item is bought where it is not as usual. */
export function RuleForm({ rule, onKept }: { rule: Rule | undefined; onKept: () => void }) {
  const me = useMe();
  const record = useRecord<Values, unknown>({
    part: `buying-rule${rule?.id ?? ''}`,
    source: rule ? { values: valuesOf(rule), version: rule.version } : { values: FRESH },
    save: (v, version, once) => {
      const body = bodyOf(v);
      return rule
        ? ask(
            api.PUT('/api/buying/rules/{id}', {
              params: { path: { id: rule.id } },
              body,
              headers: { ...once, ...ifMatch(version ?? rule.version) },
            }),
          )
        : ask(api.POST('/api/buying/rules', { body, headers: once }));
    },
    onSaved: () => {
      record.form.reset(FRESH);
      onKept();
    },
  });
  const level = record.form.watch('level');
  return (
    <SetUpForm title={rule ? 'Change this rule' : 'Another rule'} keep="Keep the rule" record={record} words={WORDS}>
      <div className="grid sm:grid-cols-2 gap-3">
        <SelectField name="level" label={WORDS.level.label} autoFocus={rule !== undefined}>
          <option value="company">the company</option>
          <option value="class">a class</option>
          <option value="item">an item</option>
        </SelectField>
        {level === 'class' && <TextField name="className" label={WORDS.className.label} />}
        {level === 'item' && <TextField name="sku" label={WORDS.sku.label} code />}
        {level === 'company' && <span />}
        <SelectField name="siteId" label={WORDS.siteId.label}>
          <option value="">all sites</option>
          {me.data?.sites.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
        </SelectField>
        <TextField name="servicePercent" label={WORDS.servicePercent.label} />
        <NumberField name="reviewDays" label={WORDS.reviewDays.label} />
        {level === 'item' && <TextField name="supplier" label={WORDS.supplier.label} code />}
        {level === 'item' && <TextField name="likeSku" label={WORDS.likeSku.label} code />}
        {level === 'item' && <NumberField name="likePercent" label={WORDS.likePercent.label} />}
        {level === 'item' && <NumberField name="roomUnits" label={WORDS.roomUnits.label} />}
      </div>
      <div className="grid gap-1 mt-3">
        <CheckField name="isFixed" label={WORDS.isFixed.label} />
        {level === 'item' && <CheckField name="isDropped" label={WORDS.isDropped.label} />}
      </div>
    </SetUpForm>
  );
}
