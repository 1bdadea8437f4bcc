import { useQuery } from '@tanstack/react-query';
import { micro, moneyText } from '@vectrum/core/money';
import { api, ask, type Dto, ProblemError } from '../api/client';
import { key } from '../api/keys';
import { isOffline } from '../flow/kept';
import { plural } from '../ui/format';
import { ProblemNote, Skeleton } from '../ui/states';
import type { ParcelChoice } from './parcel-choice';

/** Services and prices of a weighed parcel, cheapest first, and whether nobody can be asked now. Asks for none while there is no weight. */
export function useRates(order: string, weightG: number | null) {
  const rates = useQuery({
    queryKey: key('rates', order, weightG),
    queryFn: () =>
      ask(api.GET('/api/bench/orders/{code}/rates', { params: { path: { code: order }, query: { weight: String(weightG) } } })),
    enabled: weightG !== null,
    staleTime: 60_000,
    retry: false,
  });
  return { rates, away: rates.error !== null && isOffline(rates.error) };
}

/** Services and prices, cheapest first. Where no carrier can be asked, the choice is left to when one can. */
export function Rates({
  order,
  weightG,
  choice,
  onChoose,
}: {
  order: string;
  weightG: number;
  choice: Pick<ParcelChoice, 'rate'>;
  onChoose: (rate: ParcelChoice['rate']) => void;
}) {
  const { rates, away } = useRates(order, weightG);
  const is = (r: Dto['RateDto']) =>
    choice.rate !== null && choice.rate !== 'cheapest' && choice.rate.service === r.service && choice.rate.carrier === r.carrier;
  return (
    <div className="rates" role="group" aria-label="Service">
      {rates.isPending && <Skeleton rows={3} />}
      {away ? (
        <button type="button" aria-pressed={choice.rate === 'cheapest'} onClick={() => onChoose('cheapest')}>
          <span>
            Cheapest service <span className="mid">chosen when the network is back</span>
          </span>
        </button>
      ) : (
        <ProblemNote problem={rates.error} onRetry={() => void rates.refetch()} />
      )}
      {rates.data?.silent.map((s) => (
        <ProblemNote key={s} problem={new ProblemError(503, 'carrier', s)} onRetry={() => void rates.refetch()} />
      ))}
      {rates.data?.rates.map((r) => (
        <button key={r.carrier + r.service} type="button" aria-pressed={is(r)} onClick={() => onChoose(r)}>
          <span>
            {r.carrierName} <span className="mid">{r.name.toLowerCase()}</span>
          </span>
          <span className="mid">{plural(r.days, 'day', 'days')}</span>
          <b>{moneyText(micro(r.price))}</b>
        </button>
      ))}
    </div>
  );
}
