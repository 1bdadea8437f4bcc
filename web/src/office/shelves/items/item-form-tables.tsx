import { useFieldArray, type Control, type UseFormRegister } from 'react-hook-form';
import type { Dto } from '../../../api/client';
import { Field } from '../../../ui/field';
import { Glyph } from '../../../ui/glyph';
import { blankPack, type ItemValues } from './item-values';
import { LinesTable } from '../../../ui/table';
import { Input, Select } from '../../../ui/input';
import { TextButton } from '../../../ui/button';

interface Props {
  control: Control<ItemValues>;
  register: UseFormRegister<ItemValues>;
}
const PACK_FIELDS = ['name', 'plural', 'factor', 'weightG', 'lengthMm', 'widthMm', 'heightMm'] as const;

/** The ladder of pack units: each with what it holds, its weight and size, and its barcodes. */
export function PackRows({ control, register }: Props) {
  const packs = useFieldArray({ control, name: 'packs' });
  return (
    <>
      <LinesTable>
        <thead>
          <tr>
            <th>One</th>
            <th>Many</th>
            <th className="num">Holds</th>
            <th className="num">Weight, g</th>
            <th className="num">Long, mm</th>
            <th className="num">Wide</th>
            <th className="num">High</th>
            <th>Barcodes, a space between</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {packs.fields.map((row, i) => (
            <tr key={row.id}>
              {PACK_FIELDS.map((f, n) => (
                <td key={f} style={{ width: n < 2 ? 90 : 72 }}>
                  <Input
                    className={n < 2 ? '' : 'num'}
                    aria-label={`${f} of pack ${i + 1}`}
                    {...register(`packs.${i}.${f}`)}
                    readOnly={f === 'factor' && i === 0}
                  />
                </td>
              ))}
              <td>
                <Input className="code" data-scan="more" aria-label={`Barcodes of pack ${i + 1}`} {...register(`packs.${i}.barcodes`)} />
              </td>
              <td>
                <button type="button" aria-label={`Take pack ${i + 1} out`} onClick={() => packs.remove(i)} disabled={i === 0}>
                  <Glyph name="shut" />
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </LinesTable>
      <TextButton type="button" className="self-start" onClick={() => packs.append({ ...blankPack })}>
        Another pack unit
      </TextButton>
    </>
  );
}

/** When an item is bought for a site, and when its pick face is filled up again. */
const LEVELS = [
  ['reorderPoint', 'Reorder point'],
  ['orderUpTo', 'Order up to'],
  ['refillBelow', 'Refill below'],
  ['refillUpTo', 'Refill up to'],
] as const;

/** What the item is at each site: its home, when to buy it and to fill its home up, what it costs there. */
export function SiteRows({ control, register, seesCosts }: Props & { seesCosts: boolean }) {
  const { fields } = useFieldArray({ control, name: 'sites' });
  return (
    <LinesTable>
      <thead>
        <tr>
          <th>Site</th>
          <th>Home bin</th>
          {LEVELS.map(([level, says]) => (
            <th key={level} className="num">
              {says}
            </th>
          ))}
          {seesCosts && <th className="num">Cost there, if it differs</th>}
        </tr>
      </thead>
      <tbody>
        {fields.map((s, i) => (
          <tr key={s.id}>
            <td>{s.site}</td>
            <td>
              <Input className="code" data-scan aria-label={`Home bin at ${s.site}`} {...register(`sites.${i}.home`)} />
            </td>
            {LEVELS.map(([level, says]) => (
              <td key={level}>
                <Input className="num" inputMode="numeric" aria-label={`${says} at ${s.site}`} {...register(`sites.${i}.${level}`)} />
              </td>
            ))}
            {seesCosts && (
              <td>
                <Input className="num" inputMode="decimal" aria-label={`Cost at ${s.site}`} {...register(`sites.${i}.cost`)} />
              </td>
            )}
          </tr>
        ))}
      </tbody>
    </LinesTable>
  );
}

/** The parts of a kit or an assembly. */
export function PartRows({ control, register }: Props) {
  const parts = useFieldArray({ control, name: 'parts' });
  return (
    <>
      <LinesTable style={{ maxWidth: 420 }}>
        <thead>
          <tr>
            <th>Part, by its SKU</th>
            <th className="num">Units in one</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {parts.fields.map((row, i) => (
            <tr key={row.id}>
              <td>
                <Input className="code" data-scan aria-label={`Part ${i + 1}`} {...register(`parts.${i}.sku`)} />
              </td>
              <td style={{ width: 110 }}>
                <Input className="num" inputMode="numeric" aria-label={`Units of part ${i + 1}`} {...register(`parts.${i}.units`)} />
              </td>
              <td>
                <button type="button" aria-label={`Take part ${i + 1} out`} onClick={() => parts.remove(i)}>
                  <Glyph name="shut" />
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </LinesTable>
      <TextButton type="button" className="self-start" onClick={() => parts.append({ sku: '', units: '1' })}>
        Another part
      </TextButton>
    </>
  );
}

/** The fields that the company has added to every item. */
export function ExtraInputs({ fields, register }: { fields: readonly Dto['ExtraFieldDto'][]; register: UseFormRegister<ItemValues> }) {
  return (
    <div className="grid gap-4" style={{ gridTemplateColumns: 'repeat(3, minmax(0, 1fr))' }}>
      {fields.map((f) => {
        const choices = f.kind === 'choice' ? f.choices : f.kind === 'yes-no' ? ['yes', 'no'] : [];
        return (
          <Field key={f.name} label={f.name}>
            {choices.length > 0 ? (
              <Select {...register(`extra.${f.name}`)}>
                <option value="" />
                {choices.map((c) => (
                  <option key={c}>{c}</option>
                ))}
              </Select>
            ) : (
              <Input
                type={f.kind === 'date' ? 'date' : 'text'}
                inputMode={f.kind === 'number' ? 'decimal' : 'text'}
                {...register(`extra.${f.name}`)}
              />
            )}
          </Field>
        );
      })}
    </div>
  );
}
