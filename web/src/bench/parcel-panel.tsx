import { useQuery } from '@tanstack/react-query';
import { key } from '../api/keys';
import { rankCartons, weightSlackG } from '@vectrum/core/cartons';
import { moneyText, micro } from '@vectrum/core/money';
import { goodsWeightG } from '@vectrum/core/scan';
import { api, ask, type Dto, ProblemError } from '../api/client';
import { isOffline } from '../flow/kept';
import { plural } from '../ui/format';
import { weightText } from '../ui/units';
import { Glyph } from '../ui/glyph';
import { ProblemNote, Skeleton } from '../ui/states';
import type { ParcelChoice } from './parcel-choice';
import { Input } from '../ui/input';
import { TextButton } from '../ui/button';

/** The open box, drawn to its proportions, filling as lines go in. */
function BoxPicture({ carton, fill, share }: { carton: Dto['CartonDto']; fill: number; share: number }) {
  const scale = 190 / Math.max(carton.lengthMm + carton.widthMm, carton.heightMm * 2.4);
  const dx = carton.lengthMm * scale * 0.87;
  const dxw = carton.widthMm * scale * 0.87;
  const dy = carton.lengthMm * scale * 0.5;
  const dyw = carton.widthMm * scale * 0.5;
  const h = carton.heightMm * scale;
  const x = dxw + 6;
  const y = dy + dyw + h + 6;
  const at = (a: number, b: number, up: number) => `${(x + a * dx - b * dxw).toFixed(1)} ${(y - dy * a - dyw * b - up + 0).toFixed(1)}`;
  const level = h * Math.min(1, (share * fill) / 100);
  const line = { stroke: 'var(--color-ink)', strokeWidth: 1.6, strokeLinejoin: 'round' as const };
  return (
    <svg
      width={dx + dxw + 60}
      height={dy + dyw + h + 14}
      role="img"
      aria-label={`Box ${carton.code}, ${carton.lengthMm} by ${carton.widthMm} by ${carton.heightMm} mm, ${Math.round(share * fill)} % full`}
    >
      <path d={`M${at(1, 0, 0)}L${at(1, 1, 0)}L${at(1, 1, h)}L${at(1, 0, h)}Z`} fill="var(--color-kraft-pale)" {...line} />
      <path d={`M${at(0, 1, 0)}L${at(1, 1, 0)}L${at(1, 1, h)}L${at(0, 1, h)}Z`} fill="var(--color-kraft-pale)" {...line} />
      {level > 0 && (
        <>
          <path d={`M${at(0, 0, level)}L${at(1, 0, level)}L${at(1, 1, level)}L${at(0, 1, level)}Z`} fill="var(--color-sheet)" {...line} />
          <path d={`M${at(0, 0, 0)}L${at(0, 0, level)}L${at(0, 1, level)}L${at(0, 1, 0)}Z`} fill="var(--color-ink-wash)" {...line} />
          <path d={`M${at(0, 0, 0)}L${at(0, 0, level)}L${at(1, 0, level)}L${at(1, 0, 0)}Z`} fill="var(--color-ink-fill)" {...line} />
        </>
      )}
      <path d={`M${at(0, 0, 0)}L${at(1, 0, 0)}L${at(1, 0, h)}L${at(0, 0, h)}Z`} fill="var(--color-kraft)" fillOpacity="0.55" {...line} />
      <path
        d={`M${at(0, 0, 0)}L${at(0, 1, 0)}L${at(0, 1, h)}L${at(0, 0, h)}Z`}
        fill="var(--color-kraft-deep)"
        fillOpacity="0.55"
        {...line}
      />
      <text x={x + dx + 8} y={y - dy - h / 2} fontSize="14" fill="var(--color-ink-2)">
        {carton.heightMm}
      </text>
    </svg>
  );
}

/** The scale's line: the bracket is what box and goods should weigh. */
function WeightLine({ weightG, expectedG, slack }: { weightG: number; expectedG: number; slack: number }) {
  const low = expectedG * 0.7;
  const high = expectedG * 1.3;
  const x = (g: number) => 10 + (400 * (Math.min(high, Math.max(low, g)) - low)) / (high - low);
  const right = Math.abs(weightG - expectedG) <= slack;
  return (
    <svg width="430" height="52" role="img" aria-label={right ? 'Weight is right' : 'Weight is off'}>
      <path d="M10 30H410" stroke="var(--color-ink)" strokeWidth="2" />
      <path
        d={`M${x(expectedG - slack)} 18v12M${x(expectedG + slack)} 18v12M${x(expectedG - slack)} 18h5M${x(expectedG + slack)} 18h-5`}
        stroke="var(--color-ink)"
        strokeWidth="2.5"
        fill="none"
      />
      <path d={`M${x(weightG) - 8} 4h16l-8 13z`} fill={right ? 'var(--color-ink)' : 'var(--color-stamp)'} />
      <text x={x(expectedG)} y="43" textAnchor="middle" fontSize="12" fill="var(--color-ink-2)">
        {weightText(expectedG)} expected
      </text>
    </svg>
  );
}

/** Goods of the order's lines, in quantities of their own. */
const goodsOf = (task: Dto['PackTaskDto'], contents: readonly { line: number; units: number }[]) =>
  contents.flatMap(({ line, units }) => {
    const facts = task.lines.find((l) => l.line === line);
    return facts ? [{ ...facts, units }] : [];
  });

const volumeOf = (goods: readonly { units: number; unitMl: number | null }[]) => goods.reduce((n, g) => n + g.units * (g.unitMl ?? 0), 0);

/** The right half of the table: box, weight, service. Each can be chosen; the first of each is proposed. */
export function ParcelPanel({
  task,
  contents,
  rest,
  allIn,
  choice,
  onChoice,
}: {
  task: Dto['PackTaskDto'];
  contents: readonly { line: number; units: number }[];
  /** Pieces that are still to go into this parcel. */
  rest: number;
  allIn: boolean;
  choice: ParcelChoice;
  onChoice: (choice: ParcelChoice) => void;
}) {
  const packed = goodsOf(task, contents);
  const all = rest > 0 ? task.lines.map((l) => ({ ...l, units: l.picked })) : packed;
  const ranked = rankCartons(task.cartons, all);
  const chosen = ranked.find((r) => (choice.carton === '' ? r.proposed : r.carton.code === choice.carton));
  const goodsG = goodsWeightG(task, contents);
  const expected = chosen && goodsG !== null ? goodsG + chosen.carton.tareG : null;
  const share = volumeOf(all) === 0 ? 0 : volumeOf(packed) / volumeOf(all);
  const pick = (more: Partial<ParcelChoice>) => onChoice({ ...choice, carton: chosen?.carton.code ?? '', ...more });
  return (
    <>
      <span className="note" style={{ fontSize: 16 }}>
        {chosen ? `box ${chosen.carton.code}, ${Math.round(share * chosen.fill)} % full` : 'No box is set up. Make one in Setup first'}
      </span>
      <div className="flex gap-4 items-start">
        {chosen && <BoxPicture carton={chosen.carton} fill={chosen.fill} share={share} />}
        <div className="cartons flex-1" role="group" aria-label="Box">
          {ranked
            .filter((r) => r.proposed || r.fill <= 140)
            .map((r) => (
              <button key={r.carton.code} type="button" aria-pressed={r === chosen} onClick={() => pick({ carton: r.carton.code })}>
                {r.carton.code} {r.proposed && <Glyph name="full" size={12} says="proposed" />}
                <br />
                <span className="note">{r.fill > 100 ? 'too small' : `${r.fill} % full`}</span>
              </button>
            ))}
        </div>
      </div>
      <label className="flex items-baseline gap-3 border-t-[1.5px] border-ink pt-2">
        <span className="text-[20px] font-[680]">On the scale</span>
        <Input
          className="num"
          style={{ width: 130, height: 48, fontSize: 26, fontWeight: 700 }}
          inputMode="numeric"
          data-scan="grams"
          aria-label="Weight in grams"
          placeholder="grams"
          disabled={!allIn}
          value={choice.weightG ?? ''}
          onChange={(e) => pick({ weightG: /^\d{1,6}$/.test(e.target.value) ? Number(e.target.value) : null, rate: null })}
        />
        <span className="text-[18px]">g</span>
        {!allIn && <span className="note">when everything is in</span>}
      </label>
      {expected !== null && choice.weightG !== null && (
        <WeightLine weightG={choice.weightG} expectedG={expected} slack={weightSlackG(expected, task.weightPercent, task.weightGrams)} />
      )}
      {allIn && expected !== null && choice.weightG === null && (
        <TextButton type="button" className="self-start" onClick={() => pick({ weightG: expected, rate: null })}>
          It should be {weightText(expected)}: take that
        </TextButton>
      )}
      {allIn && choice.weightG !== null && (
        <Rates order={task.order} weightG={choice.weightG} choice={choice} onChoose={(rate) => pick({ rate })} />
      )}
    </>
  );
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
  const rates = useQuery({
    queryKey: key('rates', order, weightG),
    queryFn: () =>
      ask(api.GET('/api/bench/orders/{code}/rates', { params: { path: { code: order }, query: { weight: String(weightG) } } })),
    staleTime: 60_000,
    retry: false,
  });
  const away = rates.error !== null && isOffline(rates.error);
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
