import { useQuery } from '@tanstack/react-query';
import { useController } from 'react-hook-form';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { key } from '../../../api/keys';
import { BlockHead } from '../../../ui/page';
import { CheckField, TextField } from '../../../ui/record/fields';
import type { FieldWords } from '../../../ui/record/record-form';
import { RowsField } from '../../../ui/record/rows-field';
import { SetUpForm } from '../../../ui/record/set-up-form';
import { useRecord } from '../../../ui/record/use-record';
import { Shown } from '../../../ui/states';
import { DAYS, daysWords, vanName } from './working-days';

type Address = 'addressLine' | 'city' | 'postcode' | 'country';
type Values = Dto['EditSiteCalendarDto'] & { picks: boolean } & Record<Address, string>;
const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  workingDays: { label: 'Working days', show: daysWords },
  timeZone: { label: 'Time zone' },
  picks: { label: 'Rounds are walked' },
  addressLine: { label: 'Address' },
  city: { label: 'City' },
  postcode: { label: 'Postcode' },
  country: { label: 'Country' },
  departures: { label: 'Departures', show: (list: Values['departures']) => list.map((d) => `${d.leavesAt} ${d.name}`).join(', ') },
};

/** Where each site is, when it works and when its vans leave: what orders are promised by. */
export function Calendars() {
  const carriers = useQuery({ queryKey: key('carriers'), queryFn: () => ask(api.GET('/api/carriers')) });
  const query = useQuery({ queryKey: key('calendars'), queryFn: () => ask(api.GET('/api/company/calendars')) });
  return (
    <div>
      <BlockHead>
        <h2>Addresses, working days and departures</h2>
        <span className="note">An order is promised for the first van of a working day that it is in time for.</span>
      </BlockHead>
      <Shown query={query}>{(list) => list.map((c) => <Calendar key={c.siteId} calendar={c} carriers={carriers.data ?? []} />)}</Shown>
    </div>
  );
}

function Calendar({ calendar: c, carriers }: { calendar: Dto['SiteCalendarDto']; carriers: readonly { code: string; name: string }[] }) {
  const record = useRecord<Values, unknown>({
    part: `calendar-${c.siteId}`,
    source: {
      values: {
        workingDays: c.workingDays,
        timeZone: c.timeZone,
        departures: c.departures,
        picks: c.picks,
        addressLine: c.addressLine,
        city: c.city,
        postcode: c.postcode,
        country: c.country,
      },
      version: c.version,
    },
    save: (v, version, once) =>
      ask(
        api.PUT('/api/company/calendars/{siteId}', {
          params: { path: { siteId: c.siteId } },
          headers: { ...once, ...ifMatch(version ?? c.version) },
          body: {
            ...v,
            departures: v.departures.map((d) => ({ ...d, name: vanName(d, carriers), closesMinutes: Number(d.closesMinutes) })),
          },
        }),
      ),
  });
  return (
    <section className="calendar" aria-label={c.site}>
      <b>{c.site}</b>
      <SetUpForm keep="Keep" record={record} words={WORDS}>
        <div className="flex gap-4 items-end flex-wrap">
          <TextField name="addressLine" label="Address" className="w-[300px]" />
          <TextField name="city" label="City" className="w-[160px]" />
          <TextField name="postcode" label="Postcode" className="w-[110px]" />
          <TextField name="country" label="Country, such as GB" className="w-[150px]" />
        </div>
        <div className="flex gap-4 items-end flex-wrap">
          <DaysField site={c.site} />
          <TextField name="timeZone" label="Time zone" className="w-[170px]" />
        </div>
        <CheckField
          name="picks"
          label="Rounds are walked; otherwise orders go to the packing table at once, and goods are packed from the shelf"
        />
        <div className="max-w-[860px]">
          <RowsField
            name="departures"
            one="departure"
            columns={[
              { name: 'name', label: 'Van', placeholder: 'as its carrier' },
              { name: 'leavesAt', label: 'Leaves', type: 'time', width: 110 },
              { name: 'closesMinutes', label: 'Orders in by, min before', num: true, width: 170 },
              {
                name: 'carrier',
                label: 'Carrier',
                width: 190,
                options: [['', 'nobody’s'], ...carriers.map((k) => [k.code, k.name] as const)],
              },
            ]}
            blank={{ name: '', leavesAt: '15:30', closesMinutes: 60, carrier: '' }}
          />
        </div>
      </SetUpForm>
    </section>
  );
}

function DaysField({ site }: { site: string }) {
  const { field } = useController<Values, 'workingDays'>({ name: 'workingDays' });
  return (
    <span className="flex gap-4 flex-wrap">
      {DAYS.map((d, i) => (
        <label key={d} className="flex gap-1 items-center">
          <input
            type="checkbox"
            aria-label={`${site} works on ${d}`}
            checked={field.value[i] === 'Y'}
            onChange={(e) => field.onChange([...field.value].map((x, n) => (n === i ? (e.target.checked ? 'Y' : 'N') : x)).join(''))}
          />{' '}
          {d}
        </label>
      ))}
    </span>
  );
}
