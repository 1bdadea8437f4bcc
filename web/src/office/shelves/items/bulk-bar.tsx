import { useState } from 'react';
import type { Dto } from '../../../api/client';
import { plural } from '../../../ui/format';
import type { ListField } from './item-columns';
import { Select, Input } from '../../../ui/input';
import { Button, TextAnchor, TextButton } from '../../../ui/button';

const FIELDS: readonly { field: ListField; says: string; site?: true; choices?: readonly (readonly [string, string])[]; cost?: true }[] = [
  { field: 'className', says: 'Class' },
  { field: 'addTag', says: 'Add the tag' },
  { field: 'dropTag', says: 'Take off the tag' },
  { field: 'cost', says: 'Cost', cost: true },
  { field: 'reorderPoint', says: 'Reorder point', site: true },
  { field: 'orderUpTo', says: 'Order up to', site: true },
  { field: 'refillBelow', says: 'Refill below', site: true },
  { field: 'refillUpTo', says: 'Refill up to', site: true },
  { field: 'home', says: 'Home bin', site: true },
  {
    field: 'storage',
    says: 'Storage',
    choices: [
      ['any', 'anywhere'],
      ['cold', 'cold zones only'],
      ['restricted', 'restricted zones only'],
    ],
  },
  {
    field: 'rotation',
    says: 'What goes first',
    choices: [
      ['fifo', 'first in'],
      ['fefo', 'first to expire'],
    ],
  },
  {
    field: 'neverHoldsUp',
    says: 'Never holds up an order',
    choices: [
      ['yes', 'yes'],
      ['no', 'no'],
    ],
  },
];

/** Changes one field of every chosen item; the tape can undo it as one act. */
export function BulkBar({
  count,
  sites,
  seesCosts,
  busy,
  made,
  onMakeBarcodes,
  onApply,
  onClear,
  print,
}: {
  count: number;
  sites: readonly Dto['SiteDto'][];
  seesCosts: boolean;
  busy: boolean;
  /** What came of making barcodes for these; absent where nobody has asked for it. */
  made: Dto['MadeBarcodesDto'] | undefined;
  onMakeBarcodes: () => void;
  onApply: (change: Dto['ChangeFieldDto']) => void;
  onClear: () => void;
  print: string;
}) {
  const [field, setField] = useState<ListField>('className');
  const [value, setValue] = useState('');
  const [siteId, setSiteId] = useState(sites[0]?.id);
  const about = FIELDS.find((f) => f.field === field);
  return (
    <form
      className="bulk-bar"
      aria-label="Change the chosen items"
      onSubmit={(e) => {
        e.preventDefault();
        onApply({ field, value, siteId: about?.site ? (siteId ?? null) : null });
      }}
    >
      <b>{plural(count, 'item', 'items')} chosen</b>
      <Select
        aria-label="What to change"
        value={field}
        onChange={(e) => {
          const next = e.target.value as ListField;
          setField(next);
          setValue(FIELDS.find((f) => f.field === next)?.choices?.[0]?.[0] ?? '');
        }}
      >
        {FIELDS.filter((f) => !f.cost || seesCosts).map((f) => (
          <option key={f.field} value={f.field}>
            {f.says}
          </option>
        ))}
      </Select>
      {about?.choices ? (
        <Select aria-label="To what" value={value} onChange={(e) => setValue(e.target.value)}>
          {about.choices.map(([v, says]) => (
            <option key={v} value={v}>
              {says}
            </option>
          ))}
        </Select>
      ) : (
        <Input aria-label="To what" value={value} onChange={(e) => setValue(e.target.value)} placeholder="to" />
      )}
      {about?.site && (
        <Select aria-label="At which site" value={siteId} onChange={(e) => setSiteId(Number(e.target.value))}>
          {sites.map((s) => (
            <option key={s.id} value={s.id}>
              at {s.name}
            </option>
          ))}
        </Select>
      )}
      <Button disabled={busy}>Change all {count}</Button>
      <TextAnchor href={print}>Print labels</TextAnchor>
      {made ? (
        <span role="status" className="note">
          {made.made === 0 ? 'All of them have a barcode' : `${plural(made.made, 'barcode', 'barcodes')} made`}
        </span>
      ) : (
        <TextButton type="button" disabled={busy} onClick={onMakeBarcodes}>
          Give them barcodes
        </TextButton>
      )}
      <TextButton type="button" className="ml-auto" onClick={onClear}>
        Choose none
      </TextButton>
    </form>
  );
}
