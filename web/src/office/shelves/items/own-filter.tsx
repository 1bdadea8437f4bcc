import { useState } from 'react';
import type { Dto } from '../../../api/client';
import { Input, Select } from '../../../ui/input';

type Field = Dto['ExtraFieldDto'];
type Put = (values: { own: string; ownIs: string; ownHas: string }) => void;

/** Kinds whose value is chosen or typed whole; of the others a part is enough. */
const isWhole = (field: Field | undefined) => field !== undefined && field.kind !== 'text';

/** Narrows the list by what one of the company's own fields holds. */
export function OwnFilter({ fields, own, value, onChange }: { fields: readonly Field[]; own: string; value: string; onChange: Put }) {
  // A field is chosen before its value is, and narrows nothing until then.
  const [chosen, setChosen] = useState(own);
  const name = own || chosen;
  const field = fields.find((f) => f.name === name);
  const put = (text: string) =>
    onChange({ own: text === '' ? '' : name, ownIs: isWhole(field) ? text : '', ownHas: isWhole(field) ? '' : text });
  if (fields.length === 0) return null;
  const choices = field?.kind === 'choice' ? field.choices : field?.kind === 'yes-no' ? ['yes', 'no'] : null;
  return (
    <>
      <Select
        style={{ width: 'auto', maxWidth: 150 }}
        aria-label="Own field"
        value={name}
        onChange={(e) => {
          setChosen(e.target.value);
          onChange({ own: '', ownIs: '', ownHas: '' });
        }}
      >
        <option value="">Own field</option>
        {fields.map((f) => (
          <option key={f.name}>{f.name}</option>
        ))}
      </Select>
      {field &&
        (choices ? (
          <Select style={{ width: 'auto', maxWidth: 130 }} aria-label={field.name} value={value} onChange={(e) => put(e.target.value)}>
            <option value="">any</option>
            {choices.map((c) => (
              <option key={c}>{c}</option>
            ))}
          </Select>
        ) : (
          <Input
            key={field.name}
            style={{ width: 120 }}
            type={field.kind === 'date' ? 'date' : 'text'}
            aria-label={field.name}
            placeholder={field.name}
            defaultValue={value}
            onChange={(e) => put(e.target.value.trim())}
          />
        ))}
    </>
  );
}
