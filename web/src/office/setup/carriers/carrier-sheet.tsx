import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, ask, type Dto } from '../../../api/client';
import { key } from '../../../api/keys';
import { useAct } from '../../../api/use-act';
import { Field } from '../../../ui/field';
import { plural } from '../../../ui/format';
import { Sheet, ShownSheet, Waybill } from '../../../ui/sheet';
import { ProblemNote } from '../../../ui/states';
import { weightText } from '../../../ui/units';
import { Acts } from '../../../ui/page';
import { ButtonLink, Button } from '../../../ui/button';
import { LinesTable } from '../../../ui/table';
import { Input } from '../../../ui/input';

type Carrier = Dto['CarrierSheetDto'];

/** One carrier: how it is reached, where its parcels stand, what it offers, when it fetches. */
export function CarrierSheet() {
  const { code = '' } = useParams();
  const query = useQuery({
    queryKey: key('carrier', code),
    queryFn: () => ask(api.GET('/api/carriers/{code}', { params: { path: { code } } })),
  });
  return (
    <ShownSheet query={query} back="/setup/carriers">
      {(c) => (
        <Sheet address={`carriers/${c.code}`} title={c.name} back="/setup/carriers">
          <Waybill
            cells={[
              { cap: 'Code', value: <span className="code">{c.code}</span> },
              c.baseUrl
                ? { cap: 'Its system', value: c.baseUrl, note: c.hasKey ? 'a key is kept' : <span className="stamped">no key</span> }
                : { cap: 'Its system', value: 'none', note: 'labels are printed by this house' },
              {
                cap: 'Stands in',
                value: c.lanes.map((l) => l.place).join(', ') || <span className="stamped">no lane</span>,
                note: c.lanes.map((l) => l.site).join(', '),
              },
              {
                cap: 'Fetches',
                value: c.departures.map((d) => d.leavesAt).join(', ') || 'not said',
                note: <Link to="/setup/company">departures</Link>,
              },
              { cap: 'Waiting', value: plural(c.waiting, 'parcel', 'parcels') },
            ]}
          />
          {c.lanes.length === 0 && (
            <p className="mt-3">
              A carrier without a lane cannot be chosen at the packing table. Make a dispatch lane under{' '}
              <Link to="/shelves/places">Places</Link>, then name it here.
            </p>
          )}
          {!c.baseUrl && <Services list={c.ownServices} />}
          <Attempt code={c.code} />
          <Acts>
            <ButtonLink to={`/setup/carriers/${c.code}/edit`}>Change the carrier</ButtonLink>
          </Acts>
        </Sheet>
      )}
    </ShownSheet>
  );
}

function Services({ list }: { list: Carrier['ownServices'] }) {
  return (
    <LinesTable className="w-full">
      <thead>
        <tr>
          <th>Service</th>
          <th>Code</th>
          <th className="num">Days</th>
          <th className="num">Carries</th>
          <th className="num">Price</th>
        </tr>
      </thead>
      <tbody>
        {list.map((s) => (
          <tr key={s.code}>
            <td>{s.name}</td>
            <td className="code">{s.code}</td>
            <td className="num">{s.days}</td>
            <td className="num">{weightText(s.mostG)}</td>
            <td className="num">{Number(s.price).toFixed(2)}</td>
          </tr>
        ))}
      </tbody>
    </LinesTable>
  );
}

/** Asks for prices of an imagined parcel, so that address, key and services are known to work before the first real one. */
function Attempt({ code }: { code: string }) {
  const [grams, setGrams] = useState('1500');
  const [postcode, setPostcode] = useState('NW1 6XE');
  const [country, setCountry] = useState('GB');
  const attempt = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/carriers/{code}/try', {
          params: { path: { code } },
          body: { weightG: Number(grams), postcode, country: country.toUpperCase() },
          headers: once,
        }),
      ),
  });
  return (
    <form
      className="mt-4 grid gap-2 justify-items-start"
      aria-label="Try it"
      onSubmit={(e) => {
        e.preventDefault();
        attempt.mutate();
      }}
    >
      <div className="flex gap-3 items-end flex-wrap">
        <Field label="A parcel of, g">
          <Input className="num" style={{ width: 90 }} inputMode="numeric" value={grams} onChange={(e) => setGrams(e.target.value)} />
        </Field>
        <Field label="to postcode">
          <Input style={{ width: 110 }} value={postcode} onChange={(e) => setPostcode(e.target.value)} />
        </Field>
        <Field label="Country">
          <Input style={{ width: 60 }} maxLength={2} value={country} onChange={(e) => setCountry(e.target.value)} />
        </Field>
        <Button disabled={attempt.isPending}>Ask for prices</Button>
      </div>
      {attempt.data &&
        (attempt.data.rates.length === 0 ? (
          <p role="status">It takes no such parcel.</p>
        ) : (
          <ul role="status">
            {attempt.data.rates.map((r) => (
              <li key={r.service}>
                {r.name}: <b>{Number(r.price).toFixed(2)}</b>, {plural(r.days, 'day', 'days')}
              </li>
            ))}
          </ul>
        ))}
      <ProblemNote problem={attempt.error} />
    </form>
  );
}
