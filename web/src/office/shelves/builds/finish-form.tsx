import { useState } from 'react';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { useAct } from '../../../api/use-act';
import { Button, TextButton } from '../../../ui/button';
import { Field } from '../../../ui/field';
import { Input } from '../../../ui/input';
import { ProblemNote } from '../../../ui/states';
import { LinesTable } from '../../../ui/table';

type Build = Dto['BuildDto'];

/** What came out, where it goes, what was really used and spoilt, and how long it took; what is left over goes back to the dock. */
export function FinishForm({ build: b, onClose }: { build: Build; onClose: () => void }) {
  const me = useMe();
  const [units, setUnits] = useState(String(b.units));
  const [place, setPlace] = useState('');
  const [lot, setLot] = useState('');
  const [expires, setExpires] = useState('');
  const [numbers, setNumbers] = useState('');
  const [minutes, setMinutes] = useState('');
  const [hourly, setHourly] = useState('');
  const [used, setUsed] = useState<Record<number, { used: string; scrapped: string }>>({});
  const perUnit = (p: Build['parts'][number]) => p.units / b.units;
  const usedOf = (p: Build['parts'][number]) =>
    used[p.partId]?.used ?? String(Math.min(p.gathered, Math.round(perUnit(p) * (Number(units) || 0))));
  const finish = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/builds/{code}/finish', {
          params: { path: { code: b.code } },
          headers: { ...once, ...ifMatch(b.version) },
          body: {
            units: Number(units),
            place: place.trim(),
            ...(lot.trim() ? { lot: lot.trim() } : {}),
            ...(expires ? { expires } : {}),
            ...(b.tracking === 'serial' ? { numbers: numbers.split(/[\s,;]+/).filter(Boolean) } : {}),
            labourMinutes: minutes.trim() === '' ? null : Number(minutes),
            ...(hourly.trim() ? { hourly: hourly.trim().replace(',', '.') } : {}),
            parts: b.parts.map((p) => ({ partId: p.partId, used: Number(usedOf(p)), scrapped: Number(used[p.partId]?.scrapped ?? 0) })),
          },
        }),
      ),
  });
  const ready = /^[1-9]\d{0,6}$/.test(units.trim()) && place.trim() !== '';
  return (
    <form
      className="grid gap-4 mt-4"
      onSubmit={(e) => {
        e.preventDefault();
        if (ready) finish.mutate();
      }}
    >
      <div className="grid gap-4 sm:grid-cols-3">
        <Field label="How many came out">
          <Input autoFocus className="num" inputMode="numeric" value={units} onChange={(e) => setUnits(e.target.value)} />
        </Field>
        <Field label="They go to">
          <Input className="code" placeholder="bin or dock" value={place} onChange={(e) => setPlace(e.target.value.toUpperCase())} />
        </Field>
        {(b.tracking === 'lot' || b.tracking === 'lot-expiry') && (
          <Field label="Lot">
            <Input value={lot} maxLength={20} onChange={(e) => setLot(e.target.value)} />
          </Field>
        )}
        {b.tracking === 'lot-expiry' && (
          <Field label="Keeps until">
            <Input type="date" value={expires} onChange={(e) => setExpires(e.target.value)} />
          </Field>
        )}
        {b.tracking === 'serial' && (
          <Field label="Numbers of the pieces">
            <Input value={numbers} placeholder="apart by space" onChange={(e) => setNumbers(e.target.value)} />
          </Field>
        )}
        <Field label="Minutes it took">
          <Input
            className="num"
            inputMode="numeric"
            placeholder={b.usualLabour ? 'as usual' : ''}
            value={minutes}
            onChange={(e) => setMinutes(e.target.value)}
          />
        </Field>
        {me.data?.seesCosts && (
          <Field label={`An hour costs, ${me.data.homeCurrency}`}>
            <Input
              className="num"
              inputMode="decimal"
              placeholder={b.usualLabour ? `${Number(b.usualLabour)} for one` : ''}
              value={hourly}
              onChange={(e) => setHourly(e.target.value)}
            />
          </Field>
        )}
      </div>
      <LinesTable aria-label="Parts that were used">
        <thead>
          <tr>
            <th>Part</th>
            <th className="num">Gathered</th>
            <th className="num">Used</th>
            <th className="num">Spoilt</th>
          </tr>
        </thead>
        <tbody>
          {b.parts.map((p) => (
            <tr key={p.partId}>
              <td>
                <b>{p.item}</b>
              </td>
              <td className="num">{p.gathered}</td>
              <td className="num">
                <Input
                  className="num w-[80px]"
                  inputMode="numeric"
                  aria-label={`${p.item} used`}
                  value={usedOf(p)}
                  onChange={(e) => setUsed({ ...used, [p.partId]: { used: e.target.value, scrapped: used[p.partId]?.scrapped ?? '0' } })}
                />
              </td>
              <td className="num">
                <Input
                  className="num w-[80px]"
                  inputMode="numeric"
                  aria-label={`${p.item} spoilt`}
                  value={used[p.partId]?.scrapped ?? '0'}
                  onChange={(e) => setUsed({ ...used, [p.partId]: { used: usedOf(p), scrapped: e.target.value } })}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </LinesTable>
      <p className="mid">What is left over goes to the dock, to be put away.</p>
      <ProblemNote problem={finish.error} />
      <div className="flex gap-3 items-center">
        <Button type="submit" next disabled={!ready || finish.isPending}>
          It is built
        </Button>
        <TextButton type="button" onClick={onClose}>
          Back
        </TextButton>
      </div>
    </form>
  );
}
