import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../api/client';
import { key } from '../../api/keys';
import { useAct } from '../../api/use-act';
import { useBook } from '../../flow/book';
import { Ask, Key, Keys, Say, Typed } from '../../ui/phone/parts';
import { ProblemNote, Shown } from '../../ui/states';
import { usePageScan } from '../scan-context';

type Build = Dto['BuildDto'];

/** What was built is told where it was built: how many came out, of which lot, and the place that they go to, which is scanned. */
export function BuiltForm({ code, onBack }: { code: string; onBack: () => void }) {
  const query = useQuery({
    queryKey: key('build', code),
    queryFn: () => ask(api.GET('/api/builds/{code}', { params: { path: { code } } })),
  });
  return <Shown query={query}>{(build) => <Form build={build} onBack={onBack} />}</Shown>;
}

function Form({ build: b, onBack }: { build: Build; onBack: () => void }) {
  const navigate = useNavigate();
  const book = useBook(b.siteId);
  const [units, setUnits] = useState(String(b.units));
  const [place, setPlace] = useState('');
  const [lot, setLot] = useState('');
  const [expires, setExpires] = useState('');
  const [numbers, setNumbers] = useState<readonly string[]>([]);
  const n = /^[1-9]\d{0,6}$/.test(units.trim()) ? Number(units) : 0;
  const finish = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/builds/{code}/finish', {
          params: { path: { code: b.code } },
          headers: { ...once, ...ifMatch(b.version) },
          body: {
            units: n,
            place,
            ...(lot.trim() ? { lot: lot.trim() } : {}),
            ...(expires ? { expires } : {}),
            ...(b.tracking === 'serial' ? { numbers: [...numbers] } : {}),
            labourMinutes: null,
            // As many parts as such a number has; what is left over goes to the dock.
            parts: b.parts.map((p) => ({ partId: p.partId, used: Math.min(p.gathered, Math.round((p.units / b.units) * n)), scrapped: 0 })),
          },
        }),
      ),
    onDone: () => navigate('/floor'),
  });
  const hasLot = b.tracking === 'lot' || b.tracking === 'lot-expiry';
  // A place of the house is where they go; anything else is their lot, or the number of a piece.
  usePageScan((scanned) => {
    const text = scanned.trim();
    if (book.data?.places[text.toUpperCase()] !== undefined) setPlace(text.toUpperCase());
    else if (b.tracking === 'serial') setNumbers((was) => (was.includes(text) ? was : [...was, text]));
    else if (hasLot) setLot(text);
    else setPlace(text.toUpperCase());
  });
  const lacksNumbers = b.tracking === 'serial' && numbers.length !== n;
  const ready = n > 0 && place !== '' && (!hasLot || lot.trim() !== '') && (b.tracking !== 'lot-expiry' || expires !== '') && !lacksNumbers;
  return (
    <>
      <Ask>
        {place === ''
          ? 'Scan where they go'
          : lacksNumbers
            ? 'Scan each number'
            : hasLot && lot === ''
              ? 'Scan or type the lot'
              : 'Is it built?'}
      </Ask>
      <Typed
        aria-label="What was built"
        className="mt-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (ready) finish.mutate();
        }}
      >
        <input
          aria-label="How many came out"
          inputMode="numeric"
          placeholder="How many"
          value={units}
          onChange={(e) => setUnits(e.target.value)}
        />
        <input
          aria-label="They go to"
          className="code"
          autoComplete="off"
          placeholder="Bin or dock"
          value={place}
          onChange={(e) => setPlace(e.target.value.toUpperCase())}
        />
        {hasLot && (
          <input
            aria-label="Lot"
            autoComplete="off"
            placeholder="Lot"
            maxLength={20}
            value={lot}
            onChange={(e) => setLot(e.target.value)}
          />
        )}
        {b.tracking === 'lot-expiry' && (
          <input aria-label="Keeps until" type="date" value={expires} onChange={(e) => setExpires(e.target.value)} />
        )}
        <Key next className="px-5" disabled={!ready || finish.isPending}>
          It is built
        </Key>
      </Typed>
      {b.tracking === 'serial' && <Say className="mt-3 text-[17px]">{`${numbers.length} of ${n} numbers scanned`}</Say>}
      <ProblemNote problem={finish.error} />
      <Say className="mt-3 text-[17px]">Spoilt parts, or more of them than usual, are said in the office.</Say>
      <Keys style={{ marginTop: 12 }}>
        <Key type="button" onClick={onBack}>
          Back
        </Key>
      </Keys>
    </>
  );
}
