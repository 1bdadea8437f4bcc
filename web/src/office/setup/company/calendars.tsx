import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { useState } from 'react';
import { api, ask, ifMatch, type Dto } from '../../../api/client';
import { Field } from '../../../ui/field';
import { Glyph } from '../../../ui/glyph';
import { ProblemNote, Shown } from '../../../ui/states';
import { BlockHead } from '../../../ui/page';
import { Input, Select } from '../../../ui/input';
import { TextButton, Button } from '../../../ui/button';

type Calendar = Dto['SiteCalendarDto'];
/** What a departure is called until somebody says better. */
const VAN = 'Van';
const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** When each site works and when its vans leave: what orders are promised by. */
export function Calendars() {
  const carriers = useQuery({ queryKey: key('carriers'), queryFn: () => ask(api.GET('/api/carriers')) });
  const query = useQuery({ queryKey: key('calendars'), queryFn: () => ask(api.GET('/api/company/calendars')) });
  return (
    <div>
      <BlockHead>
        <h2>Working days and departures</h2>
        <span className="note">An order is promised for the first van of a working day that it is in time for.</span>
      </BlockHead>
      <Shown query={query}>
        {(list) => list.map((c) => <Form key={`${c.siteId}/${c.version}`} calendar={c} carriers={carriers.data ?? []} />)}
      </Shown>
    </div>
  );
}

function Form({ calendar: c, carriers }: { calendar: Calendar; carriers: Dto['CarrierDto'][] }) {
  const nameOf = (code: string) => carriers.find((k) => k.code === code)?.name ?? VAN;
  const [days, setDays] = useState(c.workingDays);
  const [timeZone, setTimeZone] = useState(c.timeZone);
  const [departures, setDepartures] = useState(c.departures);
  const save = useAct({
    act: (_: void, once) =>
      ask(
        api.PUT('/api/company/calendars/{siteId}', {
          params: { path: { siteId: c.siteId } },
          headers: { ...once, ...ifMatch(c.version) },
          body: { workingDays: days, timeZone, departures },
        }),
      ),
  });
  const change = (i: number, more: Partial<Dto['SiteDepartureDto']>) =>
    setDepartures(departures.map((d, n) => (n === i ? { ...d, ...more } : d)));
  return (
    <form
      className="calendar"
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <b>{c.site}</b>
      <div className="flex flex-col gap-2">
        <div className="flex gap-4 items-center flex-wrap">
          {DAYS.map((d, i) => (
            <label key={d} className="flex gap-1 items-center">
              <input
                type="checkbox"
                aria-label={`${c.site} works on ${d}`}
                checked={days[i] === 'Y'}
                onChange={(e) => setDays([...days].map((x, n) => (n === i ? (e.target.checked ? 'Y' : 'N') : x)).join(''))}
              />{' '}
              {d}
            </label>
          ))}
          <Field label="Time zone">
            <Input style={{ width: 150 }} value={timeZone} onChange={(e) => setTimeZone(e.target.value)} />
          </Field>
        </div>
        {departures.map((d, i) => (
          <div key={i} className="flex gap-3 items-end flex-wrap">
            <Field label="Van">
              <Input style={{ width: 180 }} value={d.name} onChange={(e) => change(i, { name: e.target.value })} />
            </Field>
            <Field label="Leaves">
              <Input type="time" value={d.leavesAt} onChange={(e) => change(i, { leavesAt: e.target.value })} />
            </Field>
            <Field label="Orders in by, min before">
              <Input
                className="num"
                type="number"
                min={0}
                max={720}
                style={{ width: 150 }}
                value={d.closesMinutes}
                onChange={(e) => change(i, { closesMinutes: Number(e.target.value) })}
              />
            </Field>
            <Field label="Carrier">
              <Select
                style={{ width: 160 }}
                value={d.carrier}
                onChange={(e) => change(i, { carrier: e.target.value, ...(d.name === VAN ? { name: nameOf(e.target.value) } : {}) })}
              >
                <option value="">nobody’s</option>
                {carriers.map((k) => (
                  <option key={k.code} value={k.code}>
                    {k.name}
                  </option>
                ))}
              </Select>
            </Field>
            <button
              type="button"
              aria-label={`Take ${d.name} out`}
              className="h-[30px] min-w-[24px]"
              onClick={() => setDepartures(departures.filter((_, n) => n !== i))}
            >
              <Glyph name="shut" />
            </button>
          </div>
        ))}
        <ProblemNote problem={save.error} />
        <div className="flex gap-4 items-center">
          <TextButton
            type="button"

            onClick={() => setDepartures([...departures, { name: VAN, leavesAt: '15:30', closesMinutes: 60, carrier: '' }])}
          >
            Another departure
          </TextButton>
          <Button
            disabled={
              save.isPending ||
              (days === c.workingDays && timeZone === c.timeZone && JSON.stringify(departures) === JSON.stringify(c.departures))
            }
          >
            Keep
          </Button>
        </div>
      </div>
    </form>
  );
}
