import { useQuery } from '@tanstack/react-query';
import { useNavigate, useParams } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe } from '../../../api/queries';
import { CheckField, NumberField, SelectField, TextField } from '../../../ui/record/fields';
import { type FieldWords, RecordForm } from '../../../ui/record/record-form';
import { RowsField } from '../../../ui/record/rows-field';
import { useRecord } from '../../../ui/record/use-record';
import { ShownSheet } from '../../../ui/sheet';

interface Listing {
  channelSku: string;
  sku: string;
  factor: string;
  keepBack: string;
  price: string;
}
interface Values {
  code: string;
  name: string;
  kind: Dto['NewChannelDto']['kind'];
  siteId: string;
  baseUrl: string;
  siteIds: string[];
  paused: boolean;
  pricesHoldTax: boolean;
  sharePercent: string;
  scarceUnder: string;
  checkOver: string;
  listings: Listing[];
}

const FRESH: Values = {
  code: '',
  name: '',
  kind: 'web-shop',
  siteId: '',
  baseUrl: '',
  siteIds: [],
  paused: false,
  pricesHoldTax: false,
  sharePercent: '100',
  scarceUnder: '0',
  checkOver: '',
  listings: [],
};
const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  code: { label: 'Code' },
  name: { label: 'Name' },
  kind: { label: 'Kind' },
  siteId: { label: 'Ships from' },
  baseUrl: { label: 'Address it answers at' },
  siteIds: { label: 'Sells from' },
  paused: { label: 'Leave it alone' },
  pricesHoldTax: { label: 'Its prices hold the tax' },
  sharePercent: { label: 'Its share of what is scarce' },
  scarceUnder: { label: 'Scarce under' },
  checkOver: { label: 'Check first orders over' },
  listings: { label: 'Listings', show: (list: Listing[]) => list.map((l) => l.channelSku).join(', ') },
};

const valuesOf = (c: Dto['ChannelSheetDto']): Values => ({
  ...FRESH,
  code: c.code,
  name: c.name,
  baseUrl: c.baseUrl ?? '',
  siteIds: c.siteIds.map(String),
  paused: c.paused,
  pricesHoldTax: c.pricesHoldTax,
  sharePercent: String(c.sharePercent),
  scarceUnder: String(c.scarceUnder),
  checkOver: c.checkOver ? c.checkOver.replace(/\.?0+$/, '') : '',
  listings: c.items.map((l) => ({
    channelSku: l.channelSku,
    sku: l.sku,
    factor: String(l.factor),
    keepBack: String(l.keepBack),
    price: l.price.replace(/\.?0+$/, ''),
  })),
});

const bodyOf = (v: Values): Dto['EditChannelDto'] => ({
  name: v.name,
  baseUrl: v.baseUrl.trim() || null,
  ...(v.siteIds.length > 0 ? { siteIds: v.siteIds.map(Number) } : {}),
  paused: v.paused,
  pricesHoldTax: v.pricesHoldTax,
  sharePercent: Number(v.sharePercent),
  scarceUnder: Number(v.scarceUnder),
  checkOver: v.checkOver.trim() || null,
  listings: v.listings.map((l) => ({ ...l, factor: Number(l.factor), keepBack: Number(l.keepBack) })),
});

/** Makes or changes a channel. */
export function ChannelForm() {
  const { code } = useParams();
  const query = useQuery({
    queryKey: key('channel', code),
    queryFn: () => ask(api.GET('/api/channels/{code}', { params: { path: { code: code ?? '' } } })),
    enabled: code !== undefined,
  });
  const me = useMe();
  if (code)
    return (
      <ShownSheet query={query} back="/setup/channels">
        {(channel) => <Form key={code} channel={channel} sites={me.data?.sites ?? []} />}
      </ShownSheet>
    );
  return me.data ? <Form channel={undefined} sites={me.data.sites} /> : null;
}

function Form({ channel, sites }: { channel: Dto['ChannelSheetDto'] | undefined; sites: Dto['MeDto']['sites'] }) {
  const navigate = useNavigate();
  const fresh = { ...FRESH, siteId: String(sites[0]?.id ?? '') };
  const record = useRecord<Values, { code: string }>({
    source: { values: channel ? valuesOf(channel) : fresh, version: channel?.version },
    save: (v, version, once) =>
      ask(
        version === undefined
          ? api.POST('/api/channels', { body: { ...bodyOf(v), code: v.code, kind: v.kind, siteId: Number(v.siteId) }, headers: once })
          : api.PUT('/api/channels/{code}', {
              params: { path: { code: v.code } },
              headers: { ...once, ...ifMatch(version) },
              body: bodyOf(v),
            }),
      ),
    onSaved: (made) => void navigate(`/setup/channels/${made.code}`),
  });
  return (
    <RecordForm
      record={record}
      words={WORDS}
      address={channel ? `channels/${channel.code}/edit` : 'channels/new'}
      title={channel ? `Change ${channel.name}` : 'New channel'}
      back={channel ? `/setup/channels/${channel.code}` : '/setup/channels'}
      keep="Keep the channel"
    >
      <div className="grid sm:grid-cols-2 gap-4">
        <TextField name="name" label="Name" autoFocus={!channel} />
        <TextField name="code" label="Code" code readOnly={channel !== undefined} />
        {!channel && (
          <>
            <SelectField name="kind" label="Kind">
              <option value="web-shop">web shop</option>
              <option value="marketplace">marketplace</option>
              <option value="trade">trade</option>
              <option value="phone">phone</option>
            </SelectField>
            <SelectField name="siteId" label="Ships from">
              {sites.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.name}
                </option>
              ))}
            </SelectField>
          </>
        )}
        <TextField name="baseUrl" label="Address it answers at" placeholder="none: it sends, or orders are typed" />
      </div>
      {channel && sites.length > 1 && (
        <fieldset className="flex gap-5 items-center flex-wrap">
          <legend className="note">It sells what is at</legend>
          {sites.map((site) => (
            <label key={site.id} className="flex gap-2 items-center min-h-6">
              <input type="checkbox" value={site.id} {...record.form.register('siteIds')} /> {site.name}
            </label>
          ))}
        </fieldset>
      )}
      <div className="grid sm:grid-cols-3 gap-4">
        <NumberField name="sharePercent" label="Its share of what is scarce, %" />
        <NumberField name="scarceUnder" label="Scarce is what is under, pieces" />
        <NumberField name="checkOver" label="Check first orders worth over" placeholder="none" />
      </div>
      <CheckField name="pricesHoldTax" label="The prices of its orders hold the tax" />
      {channel && <CheckField name="paused" label="Leave it alone: neither ask nor tell it" />}
      <p className="note">What it sells, under its own codes</p>
      <RowsField
        name="listings"
        one="listing"
        columns={[
          { name: 'channelSku', label: 'Its code', code: true },
          { name: 'sku', label: 'Our SKU', code: true },
          { name: 'factor', label: 'Holds', num: true, width: 76 },
          { name: 'keepBack', label: 'Keep back', num: true, width: 84 },
          { name: 'price', label: 'Price', num: true, width: 96 },
        ]}
        blank={{ channelSku: '', sku: '', factor: '1', keepBack: '0', price: '' }}
      />
    </RecordForm>
  );
}
