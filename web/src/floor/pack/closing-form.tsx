import { weightSlackG } from '@vectrum/core/cartons';
import type { Dto } from '../../api/client';
import { BoxOffers } from '../../bench/box/box-offers';
import { ParcelPicture } from '../../bench/parcel-picture';
import { Rates } from '../../bench/rates';
import { ScaleChoice } from '../../bench/scale-choice';
import { WeightWhys } from '../../bench/weight-whys';
import type { Closing } from '../../bench/use-closing';
import { PhoneLink, Say, Typed } from '../../ui/phone/parts';
import { weightText } from '../../ui/units';

/** Box, weight and service of a parcel, each proposed, to be changed with a thumb. */
export function ClosingForm({ task, parcel, number }: { task: Dto['PackTaskDto']; parcel: Closing; number: number }) {
  const { box, change, weightG, expectedG } = parcel;
  const off = expectedG !== null && weightG !== null ? weightG - expectedG : 0;
  const isOff = expectedG !== null && Math.abs(off) > weightSlackG(expectedG, task.weightPercent, task.weightGrams);
  return (
    <>
      <Say className="text-[17px] pb-1">
        Parcel {number}, box {box.chosen?.carton.code ?? 'none: make one in Setup'}
      </Say>
      <div className="px-[14px]">
        <BoxOffers box={box} onChoose={(carton) => change({ carton })} />
      </div>
      <Say className="text-[17px] pb-1">
        On the scale, in grams <ScaleChoice /> {parcel.hasScale && <PhoneLink onClick={parcel.weigh}>Read the scale</PhoneLink>}
      </Say>
      <Typed onSubmit={(e) => e.preventDefault()}>
        <input
          aria-label="Weight in grams"
          inputMode="numeric"
          data-scan="grams"
          value={weightG ?? ''}
          onChange={(e) => change({ weightG: /^\d{1,7}$/.test(e.target.value) ? Number(e.target.value) : null, rate: null })}
        />
      </Typed>
      {task.wantsPictures && (
        <Say className="text-[17px]">
          <ParcelPicture code={`${task.order}-${number}`} />
        </Say>
      )}
      {isOff && (
        <Say className="text-[17px]">
          <span className="stamped">
            {weightText(Math.abs(off))} {off > 0 ? 'heavier' : 'lighter'} than its goods should be
          </span>
        </Say>
      )}
      {parcel.offWeight && (
        <div className="px-[18px]">
          <WeightWhys why={parcel.choice.why} onWhy={(why) => change({ why })} />
        </div>
      )}
      {weightG !== null && (
        <div className="px-[14px] pb-3">
          <Rates
            order={task.order}
            weightG={weightG}
            box={box.chosen?.carton.code ?? ''}
            choice={{ rate: parcel.rate }}
            onChoose={(rate) => change({ weightG, rate })}
          />
        </div>
      )}
    </>
  );
}
