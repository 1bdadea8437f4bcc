import { useQuery } from '@tanstack/react-query';
import { micro, moneyText } from '@vectrum/core/money';
import { useState } from 'react';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe } from '../../../api/queries';
import { useAct } from '../../../api/use-act';
import { Rate, RateList } from '../../../bench/rates';
import { Button, TextButton } from '../../../ui/button';
import { Field } from '../../../ui/field';
import { when } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';
import { Input, Select } from '../../../ui/input';
import { Acts, BlockHead } from '../../../ui/page';
import { ProblemNote, Skeleton } from '../../../ui/states';
import { GlyphCell, LinesTable } from '../../../ui/table';
import { weightText } from '../../../ui/units';

type Transfer = Dto['TransferDto'];
type Parcel = Dto['TransferParcelDto'];

/** The parcels in which goods go to the other site, each with the label that its carrier sold for it. */
export function TransferParcels({ transfer: t }: { transfer: Transfer }) {
  const me = useMe().data;
  const [packing, setPacking] = useState(false);
  const isOpen = (t.state === 'requested' || t.state === 'gathering') && (me?.rights.includes('store') ?? false);
  const out = useAct({
    act: (code: string, once) =>
      ask(
        api.DELETE('/api/transfers/{code}/parcels/{parcel}', {
          params: { path: { code: t.code, parcel: code } },
          headers: { ...once, ...ifMatch(t.version) },
        }),
      ),
  });
  const print = useAct({
    act: (code: string, once) =>
      ask(api.POST('/api/transfers/{code}/parcels/{parcel}/print', { params: { path: { code: t.code, parcel: code } }, headers: once })),
  });
  const isPriced = t.parcels.some((p) => p.price !== null);
  if (t.parcels.length === 0 && !isOpen) return null;
  return (
    <>
      <BlockHead>
        <h2>Parcels</h2>
        {t.parcels.length === 0 && <span className="note">None yet: it may also go as it stands, in your own van.</span>}
      </BlockHead>
      {t.parcels.length > 0 && (
        <LinesTable aria-label="Parcels">
          <thead>
            <tr>
              <GlyphCell />
              <th>Parcel</th>
              <th className="num">Weight</th>
              <th>Goes by</th>
              <th>Label</th>
              {isPriced && <th className="num">Costs</th>}
              {isOpen && <th aria-label="Acts" />}
            </tr>
          </thead>
          <tbody>
            {t.parcels.map((p) => (
              <tr key={p.code}>
                <GlyphCell>
                  <Glyph name={p.hereAt ? 'full' : p.state === 'label-asked' ? 'empty' : 'half'} size={14} says />
                </GlyphCell>
                <td>
                  <b className="code">{p.code}</b>
                  {p.hereAt && <span className="note">there since {when(p.hereAt)}</span>}
                </td>
                <td className="num">
                  {weightText(p.weightG)}
                  {p.box && <span className="note code">{p.box}</span>}
                </td>
                <td>{p.carrier ?? 'without a label'}</td>
                <td>
                  <LabelState transfer={t.code} parcel={p} />
                </td>
                {isPriced && <td className="num">{p.price ? moneyText(micro(p.price), me?.homeCurrency) : ''}</td>}
                {isOpen && (
                  <td>
                    <span className="flex gap-3 justify-end">
                      {p.state === 'labelled' && (
                        <TextButton type="button" disabled={print.isPending} onClick={() => print.mutate(p.code)}>
                          Print again
                        </TextButton>
                      )}
                      <TextButton
                        type="button"
                        disabled={out.isPending}
                        aria-label={`Take out ${p.code}`}
                        onClick={() => out.mutate(p.code)}
                      >
                        Take out
                      </TextButton>
                    </span>
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </LinesTable>
      )}
      <ProblemNote problem={out.error ?? print.error} />
      {isOpen && packing && <PackForm transfer={t} onDone={() => setPacking(false)} />}
      {isOpen && !packing && (
        <Acts>
          <Button type="button" onClick={() => setPacking(true)}>
            Pack a parcel
          </Button>
        </Acts>
      )}
    </>
  );
}

function LabelState({ transfer, parcel: p }: { transfer: string; parcel: Parcel }) {
  if (p.state === 'packed') return '–';
  if (p.state === 'label-asked')
    return p.problem ? <span className="stamped">{p.problem}. It is asked for again</span> : <span className="mid">asked for</span>;
  return (
    <a className="code" href={`/api/transfers/${transfer}/parcels/${p.code}/label`} target="_blank" rel="noreferrer">
      {p.tracking}
    </a>
  );
}

/** Weight, box and service of one more parcel. */
function PackForm({ transfer: t, onDone }: { transfer: Transfer; onDone: () => void }) {
  const [grams, setGrams] = useState('');
  const [box, setBox] = useState('');
  const [service, setService] = useState<{ carrier: string; code: string } | null>(null);
  const weightG = /^\d{1,7}$/.test(grams) && Number(grams) > 0 ? Number(grams) : null;
  const boxes = useQuery({ queryKey: key('cartons'), queryFn: () => ask(api.GET('/api/boxes')) });
  const rates = useQuery({
    queryKey: key('transfer-rates', t.code, weightG, box),
    queryFn: () =>
      ask(api.GET('/api/transfers/{code}/parcels/rates', { params: { path: { code: t.code }, query: { weight: String(weightG), box } } })),
    enabled: weightG !== null,
    staleTime: 60_000,
    retry: false,
  });
  const pack = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/transfers/{code}/parcels', {
          params: { path: { code: t.code } },
          body: { weightG: weightG ?? 0, box: box || null, service },
          headers: { ...once, ...ifMatch(t.version) },
        }),
      ),
    onDone,
  });
  return (
    <form
      className="max-w-[620px]"
      aria-label="Pack a parcel"
      onSubmit={(e) => {
        e.preventDefault();
        pack.mutate();
      }}
    >
      <div className="flex gap-4 items-end flex-wrap mb-2">
        <Field label="Weight, g">
          <Input
            autoFocus
            inputMode="numeric"
            style={{ width: 120 }}
            value={grams}
            onChange={(e) => {
              setGrams(e.target.value.trim());
              setService(null);
            }}
          />
        </Field>
        <Field label="Box">
          <Select
            value={box}
            onChange={(e) => {
              setBox(e.target.value);
              setService(null);
            }}
          >
            <option value="">none of ours</option>
            {boxes.data?.map((b) => (
              <option key={b.code} value={b.code}>
                {b.code}
              </option>
            ))}
          </Select>
        </Field>
      </div>
      {weightG !== null && (
        <RateList>
          <button type="button" aria-pressed={service === null} onClick={() => setService(null)}>
            <span>
              Without a label <span className="mid">in your own van, or with a paper of somebody else</span>
            </span>
          </button>
          {rates.isPending && <Skeleton rows={2} />}
          <ProblemNote problem={rates.error} onRetry={() => void rates.refetch()} />
          {rates.data?.silent.map((s) => (
            <p key={s} className="stamped">
              {s}
            </p>
          ))}
          {rates.data?.rates.map((r) => (
            <Rate
              key={r.carrier + r.service}
              rate={r}
              isChosen={service?.carrier === r.carrier && service.code === r.service}
              onChoose={() => setService({ carrier: r.carrier, code: r.service })}
            />
          ))}
        </RateList>
      )}
      <Acts>
        <Button type="submit" next disabled={weightG === null || pack.isPending}>
          {service ? 'Pack it, and ask for its label' : 'Pack it'}
        </Button>
        <TextButton type="button" onClick={onDone}>
          Back
        </TextButton>
      </Acts>
      <ProblemNote problem={pack.error} />
    </form>
  );
}
