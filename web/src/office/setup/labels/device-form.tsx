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

/** A printer or a scale: a name at a site, and where it is on the network. */
interface Device {
  id: number;
  name: string;
  address: string;
  siteId: number;
  version: number;
}
type Body = Pick<Device, 'name' | 'address' | 'siteId'>;

const KEPT = {
  printer: {
    example: ['Goods in', '192.0.2.20:9100'],
    add: (body: Body, headers: Record<string, string>) => ask(api.POST('/api/labels/printers', { body, headers })),
    change: (id: number, body: Body, headers: Record<string, string>) =>
      ask(api.PUT('/api/labels/printers/{id}', { params: { path: { id } }, body, headers })),
  },
  scale: {
    example: ['Packing tables', '192.0.2.30:4001'],
    add: (body: Body, headers: Record<string, string>) => ask(api.POST('/api/scales', { body, headers })),
    change: (id: number, body: Body, headers: Record<string, string>) =>
      ask(api.PUT('/api/scales/{id}', { params: { path: { id } }, body, headers })),
  },
};

/** Sets a printer or a scale up, or changes one. */
export function DeviceForm({
  kind,
  device,
  sites,
  onKept,
}: {
  kind: keyof typeof KEPT;
  device: Device | undefined;
  sites: Dto['MeDto']['sites'];
  onKept: () => void;
}) {
  const fresh: Values = { name: '', address: '', siteId: sites[0]?.id ?? 0 };
  const { example, add, change } = KEPT[kind];
  const record = useRecord<Values, unknown>({
    part: `${kind}${device?.id ?? ''}`,
    source: device
      ? { values: { name: device.name, address: device.address, siteId: device.siteId }, version: device.version }
      : { values: fresh },
    save: ({ name, address, siteId }, version, once) => {
      const body = { name, address, siteId: Number(siteId) };
      return device ? change(device.id, body, { ...once, ...ifMatch(version ?? device.version) }) : add(body, once);
    },
    onSaved: () => {
      record.form.reset(fresh);
      onKept();
    },
  });
  return (
    <SetUpForm title={device ? `Change ${device.name}` : `Another ${kind}`} keep={`Keep the ${kind}`} record={record} words={WORDS}>
      <div className="grid sm:grid-cols-2 gap-3">
        <TextField name="name" label="Name" placeholder={example[0]} autoFocus={device !== undefined} />
        <SelectField name="siteId" label="Site">
          {sites.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
        </SelectField>
        <TextField name="address" label="Host and port" code placeholder={example[1]} />
      </div>
    </SetUpForm>
  );
}
