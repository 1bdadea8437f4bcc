import { useQuery } from '@tanstack/react-query';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { key } from '../../../api/keys';
import { CheckField, NumberField, SelectField, TextField } from '../../../ui/record/fields';
import type { FieldWords } from '../../../ui/record/record-form';
import { SetUpForm } from '../../../ui/record/set-up-form';
import { useRecord } from '../../../ui/record/use-record';

interface Values {
  itemId: number | string;
  /** Empty for every channel. */
  channelId: number | string;
  units: string;
  fromValue: string;
  firstOnly: boolean;
}
const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  itemId: { label: 'Goes along' },
  channelId: { label: 'With orders of' },
  units: { label: 'How many' },
  fromValue: { label: 'Worth at least' },
  firstOnly: { label: 'Only with a customer’s first order' },
};

/** Says what goes with which orders, or changes that. */
export function InsertForm({
  rule,
  items,
  onKept,
}: {
  rule: Dto['InsertRuleDto'] | undefined;
  items: Dto['InsertItemDto'][];
  onKept: () => void;
}) {
  const channels = useQuery({ queryKey: key('channels'), queryFn: () => ask(api.GET('/api/channels')) });
  const fresh: Values = { itemId: items[0]?.id ?? 0, channelId: '', units: '1', fromValue: '', firstOnly: false };
  const record = useRecord<Values, unknown>({
    part: `insert${rule?.id ?? ''}`,
    source: rule
      ? {
          values: {
            itemId: rule.itemId,
            channelId: rule.channelId ?? '',
            units: String(rule.units),
            fromValue: rule.fromValue ?? '',
            firstOnly: rule.firstOnly,
          },
          version: rule.version,
        }
      : { values: fresh },
    save: (v, version, once) => {
      const body = {
        itemId: Number(v.itemId),
        channelId: v.channelId === '' ? null : Number(v.channelId),
        units: Number(v.units),
        fromValue: v.fromValue.trim() || null,
        firstOnly: v.firstOnly,
      };
      return rule
        ? ask(
            api.PUT('/api/inserts/{id}', {
              params: { path: { id: rule.id } },
              body,
              headers: { ...once, ...ifMatch(version ?? rule.version) },
            }),
          )
        : ask(api.POST('/api/inserts', { body, headers: once }));
    },
    onSaved: () => {
      record.form.reset(fresh);
      onKept();
    },
  });
  return (
    <SetUpForm title={rule ? `Change when ${rule.name} goes along` : 'Another rule'} keep="Keep the rule" record={record} words={WORDS}>
      <div className="grid sm:grid-cols-2 gap-3">
        <SelectField name="itemId" label={WORDS.itemId.label} autoFocus={rule !== undefined}>
          {items.map((i) => (
            <option key={i.id} value={i.id}>
              {i.name}, {i.sku}
            </option>
          ))}
        </SelectField>
        <NumberField name="units" label={WORDS.units.label} />
        <SelectField name="channelId" label={WORDS.channelId.label}>
          <option value="">every channel</option>
          {channels.data?.map((c) => (
            <option key={c.id} value={c.id}>
              {c.name}
            </option>
          ))}
        </SelectField>
        <TextField name="fromValue" label={WORDS.fromValue.label} placeholder="any order" />
        <CheckField name="firstOnly" label={WORDS.firstOnly.label} />
      </div>
    </SetUpForm>
  );
}
