import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { SelectField, TextField } from '../../../ui/record/fields';
import type { FieldWords } from '../../../ui/record/record-form';
import { SetUpForm } from '../../../ui/record/set-up-form';
import { useRecord } from '../../../ui/record/use-record';

interface Values {
  name: string;
  address: string;
  siteId: number | string;
}
const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  name: { label: 'Name' },
  address: { label: 'Host and port' },
  siteId: { label: 'Site' },
};

/** Sets a printer up, or changes one. */
export function PrinterForm({
  printer,
  sites,
  onKept,
}: {
  printer: Dto['PrinterDto'] | undefined;
  sites: Dto['MeDto']['sites'];
  onKept: () => void;
}) {
  const fresh: Values = { name: '', address: '', siteId: sites[0]?.id ?? 0 };
  const record = useRecord<Values, unknown>({
    part: String(printer?.id ?? ''),
    source: printer
      ? { values: { name: printer.name, address: printer.address, siteId: printer.siteId }, version: printer.version }
      : { values: fresh },
    save: ({ name, address, siteId }, version, once) => {
      const body = { name, address, siteId: Number(siteId) };
      return ask(
        printer
          ? api.PUT('/api/labels/printers/{id}', {
              params: { path: { id: printer.id } },
              body,
              headers: { ...once, ...ifMatch(version ?? printer.version) },
            })
          : api.POST('/api/labels/printers', { body, headers: once }),
      );
    },
    onSaved: () => {
      record.form.reset(fresh);
      onKept();
    },
  });
  return (
    <SetUpForm title={printer ? `Change ${printer.name}` : 'Another printer'} keep="Keep the printer" record={record} words={WORDS}>
      <div className="grid sm:grid-cols-2 gap-3">
        <TextField name="name" label="Name" placeholder="Goods in" autoFocus={printer !== undefined} />
        <SelectField name="siteId" label="Site">
          {sites.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
        </SelectField>
        <TextField name="address" label="Host and port" code placeholder="192.0.2.20:9100" />
      </div>
    </SetUpForm>
  );
}
