import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { micro, moneyText } from '@vectrum/core/money';
import { api, ask, type Dto, ProblemError } from '../api/client';
import { key } from '../api/keys';
import { isOffline } from '../flow/kept';
import { plural } from '../ui/format';
import { ProblemNote, Skeleton } from '../ui/states';
import type { ParcelChoice } from './parcel-choice';

/** Services and prices of a weighed parcel, the one proposed first, and whether nobody can be asked now. Asks for none while there is no weight. */
export function useRates(order: string, weightG: number | null, box: string) {
  const rates = useQuery({
    queryKey: key('rates', order, weightG, box),
    queryFn: () =>
      ask(api.GET('/api/bench/orders/{code}/rates', { params: { path: { code: order }, query: { weight: String(weightG), box } } })),
    enabled: weightG !== null,
    staleTime: 60_000,
    retry: false,
  });
  return { rates, away: rates.error !== null && isOffline(rates.error) };
}

/** Services and prices, the cheapest that keeps the promise first. Where no carrier can be asked, the choice is left to when one can. */
export function Rates({
  order,
  weightG,
  box,
  choice,
  onChoose,
}: {
  order: string;
  weightG: number;
  /** The box that it is packed in, by which some carriers ask more. */
  box: string;
  choice: Pick<ParcelChoice, 'rate'>;
  onChoose: (rate: ParcelChoice['rate']) => void;
}) {
  const { rates, away } = useRates(order, weightG, box);
  const is = (r: Dto['RateDto']) =>
    choice.rate !== null && choice.rate !== 'cheapest' && choice.rate.service === r.service && choice.rate.carrier === r.carrier;
  return (
    <RateList>
      {rates.isPending && <Skeleton rows={3} />}
      {(away || rates.data?.rates.length === 0) && (
        <button type="button" aria-pressed={choice.rate === 'cheapest'} onClick={() => onChoose('cheapest')}>
          <span>
            {away ? 'Cheapest service' : 'Close it, the label comes later'}{' '}
            <span className="mid">{away ? 'chosen when the network is back' : 'asked for until a carrier gives one'}</span>
          </span>
        </button>
      )}
      {!away && <ProblemNote problem={rates.error} onRetry={() => void rates.refetch()} />}
      {rates.data?.rates.length === 0 && rates.data.silent.length === 0 && (
        <p className="stamped">No carrier of this site takes it: it is too heavy, too large, or too far away</p>
      )}
      {rates.data?.silent.map((s) => (
        <ProblemNote key={s} problem={new ProblemError(503, 'carrier', s)} onRetry={() => void rates.refetch()} />
      ))}
      {rates.data?.rates.map((r) => (
        <Rate key={r.carrier + r.service} rate={r} isChosen={is(r)} onChoose={() => onChoose(r)} />
      ))}
    </RateList>
  );
}

/** The ways in which a parcel may go, one below the other. */
export function RateList({ children }: { children: ReactNode }) {
  return (
    <div className="rates" role="group" aria-label="Service">
      {children}
    </div>
  );
}

/** One service of a carrier, with what it takes and how long it is on the way. */
export function Rate({ rate: r, isChosen, onChoose }: { rate: Dto['OfferedRateDto']; isChosen: boolean; onChoose: () => void }) {
  return (
    <button type="button" aria-pressed={isChosen} onClick={onChoose}>
      <span>
        {r.carrierName} <span className="mid">{r.name.toLowerCase()}</span>
        {!r.keeps && <span className="stamped"> too slow for this order</span>}
        {r.surcharges.length > 0 && <span className="note block">with {r.surcharges.map((x) => x.name).join(', ')}</span>}
      </span>
      <span className="mid">{plural(r.days, 'day', 'days')}</span>
      <b>{moneyText(micro(r.price))}</b>
    </button>
  );
}
