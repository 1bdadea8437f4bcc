import { useContext } from 'react';
import { useFieldArray, useFormContext } from 'react-hook-form';
import { Glyph } from '../glyph';
import { FaultContext } from './fields';
import { LinesTable } from '../table';
import { Select, Input } from '../input';
import { TextButton } from '../button';

export interface RowColumn {
  name: string;
  label: string;
  width?: number;
  code?: boolean;
  num?: boolean;
  placeholder?: string;
  type?: 'date' | 'time';
  /** What can be chosen; without it the cell is typed. */
  options?: readonly (readonly [value: string | number, says: string])[];
}

/** A short table that is written within a form: a row for each, one to add, one to take out. */
export function RowsField({
  name,
  one,
  columns,
  blank,
}: {
  name: string;
  /** What a row is, as in "Another listing". */
  one: string;
  columns: readonly RowColumn[];
  blank: object;
}) {
  const { control, register } = useFormContext();
  const list = useFieldArray({ control, name });
  const fault = useContext(FaultContext);
  return (
    <div className="overflow-x-auto">
      {list.fields.length > 0 && (
        <LinesTable className="w-full">
          <thead>
            <tr>
              {columns.map((c) => (
                <th key={c.name} className={c.num ? 'num' : undefined} style={c.width ? { width: c.width } : undefined}>
                  {c.label}
                </th>
              ))}
              <td style={{ width: 30 }} />
            </tr>
          </thead>
          <tbody>
            {list.fields.map((row, i) => (
              <tr key={row.id}>
                {columns.map((c) => {
                  const own = `${name}.${i}.${c.name}`;
                  const wrong = fault(own);
                  const says = { 'aria-label': `${c.label}, ${one} ${i + 1}`, 'aria-invalid': wrong !== undefined };
                  return (
                    <td key={c.name}>
                      {c.options ? (
                        <Select {...says} {...register(own)}>
                          {c.options.map(([value, words]) => (
                            <option key={value} value={value}>
                              {words}
                            </option>
                          ))}
                        </Select>
                      ) : (
                        <Input
                          className={`${c.code ? 'code' : ''} ${c.num ? 'num' : ''}`}
                          inputMode={c.num ? 'decimal' : undefined}
                          placeholder={c.placeholder}
                          type={c.type}
                          {...says}
                          {...register(own)}
                        />
                      )}
                      {wrong && <span className="fault">{wrong}</span>}
                    </td>
                  );
                })}
                <td>
                  <button type="button" aria-label={`Take ${one} ${i + 1} out`} onClick={() => list.remove(i)}>
                    <Glyph name="shut" />
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </LinesTable>
      )}
      {fault(name) && <p className="fault">{fault(name)}</p>}
      <TextButton type="button" className="mt-2" onClick={() => list.append({ ...blank })}>
        {list.fields.length === 0 ? `Add a ${one}` : `Another ${one}`}
      </TextButton>
    </div>
  );
}
