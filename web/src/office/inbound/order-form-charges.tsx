import { useFieldArray, type UseFormReturn } from 'react-hook-form';
import { Glyph } from '../../ui/glyph';
import type { OrderValues } from './line-sum';
import { Input, Select } from '../../ui/input';
import { TextButton } from '../../ui/button';

const SHARED = [
  ['value', 'by value'],
  ['units', 'by units'],
  ['weight', 'by weight'],
  ['volume', 'by volume'],
] as const;

/** Freight, duty, handling: what they are, how much, and what they are shared over the goods by. */
export function OrderFormCharges({ form }: { form: UseFormReturn<OrderValues> }) {
  const charges = useFieldArray({ control: form.control, name: 'charges' });
  return (
    <section aria-label="Charges" className="mt-2 grid gap-2 justify-items-start">
      {charges.fields.map((row, i) => (
        <div key={row.id} className="flex gap-3 items-center">
          <Input
            style={{ width: 190 }}
            placeholder="Freight"
            maxLength={60}
            aria-label={`Charge ${i + 1}`}
            {...form.register(`charges.${i}.says`)}
          />
          <Input
            className="num"
            style={{ width: 96 }}
            inputMode="decimal"
            placeholder="0.00"
            aria-label={`Amount of charge ${i + 1}`}
            {...form.register(`charges.${i}.amount`)}
          />
          <Select style={{ width: 156 }} aria-label={`Charge ${i + 1} is shared`} {...form.register(`charges.${i}.by`)}>
            {SHARED.map(([value, says]) => (
              <option key={value} value={value}>
                shared {says}
              </option>
            ))}
          </Select>
          <button
            type="button"
            className="grid place-items-center min-w-[28px] min-h-[28px]"
            aria-label={`Take charge ${i + 1} out`}
            onClick={() => charges.remove(i)}
          >
            <Glyph name="shut" />
          </button>
        </div>
      ))}
      <TextButton type="button" onClick={() => charges.append({ says: 'Freight', amount: '', by: 'value' })}>
        Add a charge
      </TextButton>
    </section>
  );
}
