import { useState } from 'react';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { afresh } from '../../../api/use-act';
import { TextButton } from '../../../ui/button';
import { plural } from '../../../ui/format';
import { NumberField, SelectField, TextField } from '../../../ui/record/fields';
import type { FieldWords } from '../../../ui/record/record-form';
import { SetUpForm } from '../../../ui/record/set-up-form';
import { useRecord } from '../../../ui/record/use-record';
import { ProblemNote } from '../../../ui/states';

type Rule = Dto['CountRuleDto'];
interface Values {
  level: 'company' | 'class' | 'item';
  className: string;
  sku: string;
  intervalDays: string;
  units: string;
  value: string;
  unitsPercent: string;
  valuePercent: string;
}
const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  level: { label: 'For' },
  className: { label: 'Class' },
  sku: { label: 'SKU' },
  intervalDays: { label: 'Counted every so many days' },
  units: { label: 'Off by at most so many units' },
  value: { label: 'Off by at most this amount' },
  unitsPercent: { label: 'Per cent of the units that should be there' },
  valuePercent: { label: 'Per cent of what the whole count is worth' },
};

const numberOf = (text: string) => (text.trim() === '' ? null : Number(text));
const decimalOf = (text: string) => text.trim().replace(',', '.') || null;
const bodyOf = (v: Values): Dto['KeepCountRuleDto'] => ({
  ...(v.level === 'class' ? { className: v.className.trim() } : {}),
  ...(v.level === 'item' ? { sku: v.sku.trim() } : {}),
  intervalDays: numberOf(v.intervalDays),
  units: numberOf(v.units),
  value: decimalOf(v.value),
  unitsPercent: decimalOf(v.unitsPercent),
  valuePercent: decimalOf(v.valuePercent),
});
const text = (v: number | string | null | undefined) => (v === null || v === undefined ? '' : String(Number(v)));

/** A rule, tried on counts that are over before it is kept. */
export function RuleForm({ rule, onKept }: { rule: Rule | undefined; onKept: () => void }) {
  const fresh: Values = {
    level: 'company',
    className: '',
    sku: '',
    intervalDays: '',
    units: '',
    value: '',
    unitsPercent: '',
    valuePercent: '',
  };
  const record = useRecord<Values, unknown>({
    part: `count-rule${rule?.id ?? ''}`,
    source: rule
      ? {
          values: {
            level: rule.sku ? 'item' : rule.className ? 'class' : 'company',
            className: rule.className ?? '',
            sku: rule.sku ?? '',
            intervalDays: text(rule.intervalDays),
            units: text(rule.units),
            value: text(rule.value),
            unitsPercent: text(rule.unitsPercent),
            valuePercent: text(rule.valuePercent),
          },
          version: rule.version,
        }
      : { values: fresh },
    save: (v, version, once) => {
      const body = bodyOf(v);
      return rule
        ? ask(
            api.PUT('/api/count-rules/{id}', {
              params: { path: { id: rule.id } },
              body,
              headers: { ...once, ...ifMatch(version ?? rule.version) },
            }),
          )
        : ask(api.POST('/api/count-rules', { body, headers: once }));
    },
    onSaved: () => {
      record.form.reset(fresh);
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
        <NumberField name="intervalDays" label={WORDS.intervalDays.label} />
        <NumberField name="units" label={WORDS.units.label} />
        <TextField name="value" label={WORDS.value.label} />
        <TextField name="unitsPercent" label={WORDS.unitsPercent.label} />
        <TextField name="valuePercent" label={WORDS.valuePercent.label} />
      </div>
      <Tried values={() => record.form.getValues()} />
    </SetUpForm>
  );
}

/** What the rule would have said of counts that are over. */
function Tried({ values }: { values: () => Values }) {
  const [found, setFound] = useState<Dto['TriedRuleDto'] | null>(null);
  const [problem, setProblem] = useState<unknown>(null);
  const ask1 = async () => {
    setProblem(null);
    try {
      setFound(await ask(api.POST('/api/count-rules/try', { body: bodyOf(values()), headers: afresh() })));
    } catch (thrown) {
      setProblem(thrown);
    }
  };
  return (
    <p className="mt-3" role="status">
      <TextButton type="button" onClick={() => void ask1()}>
        Try it on counts that are over
      </TextButton>{' '}
      {found &&
        (found.lines === 0
          ? 'No count of it is over yet.'
          : `Of ${plural(found.lines, 'line', 'lines')} ${found.withinNow} would be within it; ${found.withinThen} were. ${found.fewer} fewer would have been looked at, ${found.more} more.`)}
      <ProblemNote problem={problem} />
    </p>
  );
}
