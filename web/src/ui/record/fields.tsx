import { createContext, type InputHTMLAttributes, type ReactNode, useContext } from 'react';
import { useController, useFormContext } from 'react-hook-form';
import { Field } from '../field';
import { Input, TextArea, Select } from '../input';

/** What the server says against a field of the form around it. */
export const FaultContext = createContext<(field: string) => string | undefined>(() => undefined);

interface Named {
  name: string;
  label: string;
  className?: string;
}
type InputMore = Omit<InputHTMLAttributes<HTMLInputElement>, 'name' | 'className'>;

/** A line of text; `code` where it is one. */
export function TextField({ name, label, className, code, ...more }: Named & { code?: boolean } & InputMore) {
  const { register } = useFormContext();
  return (
    <Field label={label} fault={useContext(FaultContext)(name)} className={className}>
      <Input className={code ? 'code' : ''} {...more} {...register(name)} />
    </Field>
  );
}

/** A number, written as text: what it must be the server says. */
export function NumberField({ name, label, className, ...more }: Named & InputMore) {
  return <TextField name={name} label={label} className={className} inputMode="decimal" {...more} />;
}

/** Several lines of text. */
export function AreaField({ name, label, className, code, height = 90 }: Named & { code?: boolean; height?: number }) {
  const { register } = useFormContext();
  return (
    <Field label={label} fault={useContext(FaultContext)(name)} className={className}>
      <TextArea className={`p-2 ${code ? 'code' : ''}`} style={{ height }} {...register(name)} />
    </Field>
  );
}

/** One of several. Its choices may come later than its value, which stays until another is chosen. */
export function SelectField({
  name,
  label,
  className,
  autoFocus,
  disabled,
  children,
}: Named & { autoFocus?: boolean; disabled?: boolean; children: ReactNode }) {
  const { field } = useController({ name });
  return (
    <Field label={label} fault={useContext(FaultContext)(name)} className={className}>
      <Select autoFocus={autoFocus} {...field} disabled={disabled} value={String(field.value ?? '')}>
        {children}
      </Select>
    </Field>
  );
}

/** Yes or no, with what yes means. */
export function CheckField({ name, label }: Named) {
  const { register } = useFormContext();
  return (
    <label className="flex gap-2 items-center min-h-6">
      <input type="checkbox" {...register(name)} /> {label}
    </label>
  );
}
