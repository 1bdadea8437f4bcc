import { weightSlackG } from '@vectrum/core/cartons';
import type { Dto } from '../api/client';
import { Input } from '../ui/input';
import { BoxOffers } from './box/box-offers';
import { BoxView } from './box/box-view';
import { ParcelPicture } from './parcel-picture';
import { Rates } from './rates';
import type { Closing } from './use-closing';
import { WeightWhys } from './weight-whys';
import { WeightLine } from './weight-line';

/** The right half of the table: box, weight, service. Each can be chosen; the first of each is proposed. */
export function ParcelPanel({
  task,
  parcel,
  code,
  contents,
  rest,
  next,
}: {
  task: Dto['PackTaskDto'];
  parcel: Closing;
  /** The parcel that is being packed. */
  code: string;
  contents: readonly { line: number; units: number }[];
  /** Pieces that are still to go into this parcel. */
  rest: number;
  /** The line that is next to scan. */
  next: number | undefined;
}) {
  const { box, choice, change, expectedG: expected, weightG, begun } = parcel;
  const { chosen, together } = box;
  const packed = contents.reduce((sum, c) => sum + c.units, 0);
  const share = packed === 0 ? 0 : packed / (packed + rest);
  return (
    <>
      <span className="note" style={{ fontSize: 16 }}>
        {chosen ? `box ${chosen.carton.code}, ${Math.round(share * chosen.fill)} % full` : 'No box is set up. Make one in Setup first'}
        {together.length > 1 && `. It takes ${together.length} boxes: ${together.join(', ')}`}
      </span>
      <div className="box-row">
        <BoxView box={box} lines={task.lines} contents={contents} next={next} share={share} />
        <BoxOffers box={box} onChoose={(carton) => change({ carton })} />
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
          disabled={!begun}
          value={weightG ?? ''}
          onChange={(e) => change({ weightG: /^\d{1,6}$/.test(e.target.value) ? Number(e.target.value) : null, rate: null })}
        />
        <span className="text-[18px]">g</span>
        <span className="note">
          {!begun ? 'once something is in' : parcel.hasScale && choice.weightG === null ? 'read by itself once all is in' : ''}
        </span>
      </label>
      {expected !== null && weightG !== null && (
        <WeightLine weightG={weightG} expectedG={expected} slack={weightSlackG(expected, task.weightPercent, task.weightGrams)} />
      )}
      {task.wantsPictures && begun && <ParcelPicture key={code} code={code} />}
      {parcel.offWeight && <WeightWhys why={choice.why} onWhy={(why) => change({ why })} />}
      {begun && weightG !== null && (
        <Rates
          order={task.order}
          weightG={weightG}
          box={chosen?.carton.code ?? ''}
          choice={{ rate: parcel.rate }}
          onChoose={(rate) => change({ weightG, rate })}
        />
      )}
    </>
  );
}
