import { useQuery } from '@tanstack/react-query';
import { useNavigate, useParams } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe } from '../../../api/queries';
import { TextField } from '../../../ui/record/fields';
import { type FieldWords, RecordForm } from '../../../ui/record/record-form';
import { RowsField } from '../../../ui/record/rows-field';
import { useRecord } from '../../../ui/record/use-record';
import { ShownSheet } from '../../../ui/sheet';

interface Service {
  code: string;
  name: string;
  days: string;
  price: string;
  mostG: string;
}
interface Values {
  code: string;
  name: string;
  baseUrl: string;
  apiKey: string;
  lanes: { siteId: number | string; place: string }[];
  services: Service[];
}

const FRESH: Values = { code: '', name: '', baseUrl: '', apiKey: '', lanes: [], services: [] };
const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  code: { label: 'Code' },
  name: { label: 'Name' },
  baseUrl: { label: 'Address of its system' },
  apiKey: { label: 'Key for its system' },
  lanes: { label: 'Lanes', show: (lanes: Values['lanes']) => lanes.map((l) => l.place).join(', ') },
  services: { label: 'Services' },
};

const valuesOf = (c: Dto['CarrierSheetDto']): Values => ({
  code: c.code,
  name: c.name,
  baseUrl: c.baseUrl ?? '',
  apiKey: '',
  lanes: c.lanes.map(({ siteId, place }) => ({ siteId, place })),
  services: c.ownServices.map((s) => ({ ...s, days: String(s.days), mostG: String(s.mostG) })),
});

const bodyOf = (v: Values): Dto['EditCarrierDto'] => ({
  name: v.name,
  baseUrl: v.baseUrl.trim() || null,
  ...(v.apiKey.trim() ? { apiKey: v.apiKey.trim() } : {}),
  lanes: v.lanes.map((l) => ({ siteId: Number(l.siteId), place: l.place })),
  services: v.services.map((s) => ({ ...s, days: Number(s.days), mostG: Number(s.mostG) })),
});

/** Makes or changes a carrier. */
export function CarrierForm() {
  const { code } = useParams();
  const query = useQuery({
    queryKey: key('carrier', code),
    queryFn: () => ask(api.GET('/api/carriers/{code}', { params: { path: { code: code ?? '' } } })),
    enabled: code !== undefined,
  });
  const me = useMe();
  const lanes = useQuery({
    queryKey: key('places', 'lanes'),
    queryFn: () => ask(api.GET('/api/places', { params: { query: { kind: 'dispatch-lane', limit: '500', from: '0' } } })),
  });
  if (code && !query.data)
    return (
      <ShownSheet query={query} back="/setup/carriers">
        {() => null}
      </ShownSheet>
    );
  if (!me.data || !lanes.data)
    return (
      <ShownSheet query={lanes} back="/setup/carriers">
        {() => null}
      </ShownSheet>
    );
  return <Form carrier={query.data} sites={me.data.sites} lanes={lanes.data.rows} />;
}

function Form({
  carrier,
  sites,
  lanes,
}: {
  carrier: Dto['CarrierSheetDto'] | undefined;
  sites: Dto['MeDto']['sites'];
  lanes: readonly { siteId: number; code: string }[];
}) {
  const navigate = useNavigate();
  // The lane of a house with one is the one.
  const first = lanes[0];
  const fresh = first ? { ...FRESH, lanes: [{ siteId: first.siteId, place: first.code }] } : FRESH;
  const record = useRecord<Values, { code: string }>({
    unwritten: ['apiKey'],
    source: { values: carrier ? valuesOf(carrier) : fresh, version: carrier?.version },
    save: (v, version, once) =>
      ask(
        version === undefined
          ? api.POST('/api/carriers', { body: { ...bodyOf(v), code: v.code }, headers: once })
          : api.PUT('/api/carriers/{code}', {
              params: { path: { code: v.code } },
              headers: { ...once, ...ifMatch(version) },
              body: bodyOf(v),
            }),
      ),
    onSaved: (made) => void navigate(`/setup/carriers/${made.code}`),
  });
  return (
    <RecordForm
      record={record}
      words={WORDS}
      address={carrier ? `carriers/${carrier.code}/edit` : 'carriers/new'}
      title={carrier ? `Change ${carrier.name}` : 'New carrier'}
      back={carrier ? `/setup/carriers/${carrier.code}` : '/setup/carriers'}
      keep="Keep the carrier"
    >
      <div className="grid sm:grid-cols-2 gap-4">
        <TextField name="name" label="Name" autoFocus={!carrier} />
        <TextField name="code" label="Code" code readOnly={carrier !== undefined} />
        <TextField name="baseUrl" label="Address of its system" placeholder="none: this house prints the labels" />
        <TextField
          name="apiKey"
          label="Key for its system"
          autoComplete="off"
          placeholder={carrier?.hasKey ? 'kept; type a new one to change it' : 'as the carrier gave it'}
        />
      </div>
      <p className="note">Where its parcels stand at each site until the van comes</p>
      {lanes.length === 0 && <p>There is no dispatch lane yet. Make one under Shelves, Places first, then it can be chosen here.</p>}
      <RowsField
        name="lanes"
        one="lane"
        columns={[
          { name: 'siteId', label: 'Site', options: sites.map((s) => [s.id, s.name] as const) },
          { name: 'place', label: 'Lane', options: [['', 'choose'], ...lanes.map((l) => [l.code, l.code] as const)] },
        ]}
        blank={{ siteId: sites[0]?.id ?? '', place: '' }}
      />
      <p className="note">What it offers, where it has no system that says so</p>
      <RowsField
        name="services"
        one="service"
        columns={[
          { name: 'name', label: 'Service' },
          { name: 'code', label: 'Code', code: true, width: 120 },
          { name: 'days', label: 'Days', num: true, width: 64 },
          { name: 'mostG', label: 'Carries, g', num: true, width: 100 },
          { name: 'price', label: 'Price', num: true, width: 90 },
        ]}
        blank={{ name: '', code: '', days: '2', mostG: '30000', price: '' }}
      />
    </RecordForm>
  );
}
