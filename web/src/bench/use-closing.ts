import { commandOf, boxOf } from '@vectrum/core/barcode';
import { weightSlackG } from '@vectrum/core/cartons';
import {
  type Feedback,
  goodsWeightG,
  leftToPack,
  noteIsRead,
  type PackingCommand,
  type PackInput,
  type PackParcel,
  type PackState,
  parcelInUse,
} from '@vectrum/core/scan';
import { useEffect, useRef, useState } from 'react';
import { type Dto, ProblemError } from '../api/client';
import { plural } from '../ui/format';
import { weightText } from '../ui/units';
import { type ParcelBox, useParcelBox } from './box/use-parcel-box';
import { noChoice, type ParcelChoice, rateOf, serviceOf } from './parcel-choice';
import { useRates } from './rates';
import { useScale } from './use-scale';

type WithoutId<T> = T extends unknown ? Omit<T, 'id'> : never;

export interface Closing {
  box: ParcelBox;
  choice: ParcelChoice;
  change: (more: Partial<ParcelChoice>) => void;
  /** What is on the scale: typed, or what the scale says while all is in. */
  weightG: number | null;
  /** What box and goods should weigh, in grams; null where it is not known. */
  expectedG: number | null;
  rate: ParcelChoice['rate'];
  begun: boolean;
  more: boolean;
  lacks: string[];
  isReady: boolean;
  offWeight: boolean;
  hasScale: boolean;
  close: () => void;
  /** Hears a code that is about box, weight, service or label. Returns whether it was one. */
  hears: (code: string) => boolean;
  /** Takes the weight that the scale says now. */
  weigh: () => void;
  /** What came of a command of the table. */
  answered: (kind: string, parcel: number | null) => void;
  refused: (command: PackingCommand, title: string) => void;
}

/**
 * Closing the parcel in use: its box, its weight, its service, each proposed, chosen by hand or by scan. Where the company wants it, the
 * label comes by itself once all is in and the scale agrees.
 */
export function useClosing({
  task,
  state,
  parcels,
  input,
  say,
  onPark,
  scaleIs = 'watched',
}: {
  task: Dto['PackTaskDto'];
  state: PackState;
  parcels: readonly PackParcel[];
  input: (given: WithoutId<PackInput>) => void;
  say: (feedback: Feedback) => void;
  onPark: () => void;
  /** Whether the scale stands here, and is read by itself; on a phone somebody else's parcel may lie on it. */
  scaleIs?: 'watched' | 'asked';
}): Closing {
  // What is chosen is for one parcel: the answer to an earlier one, however late, leaves it alone.
  const [kept, setKept] = useState<{ parcel: number; choice: ParcelChoice }>({ parcel: 0, choice: noChoice });
  // The weight that was refused, and of which parcel: having looked is said of no other.
  const [refusedAt, setRefusedAt] = useState<{ parcel: number; weightG: number } | null>(null);
  const [armed, setArmed] = useState<number | null>(null);
  const number = parcelInUse(task, state);
  const choice = kept.parcel === number ? kept.choice : noChoice;
  const inUse = parcels.find((p) => p.number === number);
  const contents = inUse?.contents ?? [];
  const left = leftToPack(task, state);
  const split = parcels.some((p) => p.open && p.number !== number);
  const begun = (inUse?.open ?? true) && contents.some((c) => c.units > 0);
  const more = left > 0 && !split;
  const box = useParcelBox({ task, parcels, number, wanted: choice.carton });
  const scale = useScale(begun && !more && scaleIs === 'watched');
  const weightG = choice.weightG ?? scale.grams;
  const carton = box.chosen?.carton.code ?? '';
  const found = useRates(task.order, begun ? weightG : null, carton);
  const rate = rateOf(choice, { rates: found.rates.data?.rates, away: found.away });
  const goodsG = goodsWeightG(task, contents);
  const expectedG = box.chosen && goodsG !== null ? goodsG + box.chosen.carton.tareG : null;
  const noteRead = noteIsRead(task, state);
  const lacks = [
    more && `${plural(left, 'piece', 'pieces')} to scan`,
    !noteRead && 'note to answer',
    begun && weightG === null && 'weight',
    begun && weightG !== null && rate === null && 'service',
  ].filter((l) => l !== false);
  const isReady = begun && noteRead && carton !== '' && weightG !== null && rate !== null;
  /** Another choice, on top of what is chosen by the time that it comes. */
  const change = (more: Partial<ParcelChoice>) =>
    setKept((now) => ({ parcel: number, choice: { ...(now.parcel === number ? now.choice : noChoice), ...more } }));
  const offWeight = refusedAt?.parcel === number && refusedAt.weightG === weightG;
  const close = () =>
    input({ kind: 'close', carton, weightG: weightG ?? 0, service: serviceOf(rate), weightSeen: offWeight, weightWhy: choice.why, more });

  const agrees =
    weightG !== null &&
    expectedG !== null &&
    Math.abs(weightG - expectedG) <= weightSlackG(expectedG, task.weightPercent, task.weightGrams);
  const byItself = task.labelsByThemselves && armed === number && isReady && !more && choice.weightG === null && agrees;
  const closeNow = useRef(close);
  useEffect(() => {
    closeNow.current = close;
  });
  useEffect(() => {
    if (byItself) closeNow.current();
  }, [byItself]);

  const no = (title: string, detail: string) => say({ band: 'not-this', title, detail });
  const weigh = async () => {
    if (!scale.scale) return no('No scale', 'None is set up or chosen for this table. Type the weight');
    const said = await scale.weigh();
    if (said instanceof ProblemError) return no('No weight', said.message);
    if (!said.isSteady) return no('The scale is moving', 'Let go of the parcel, then scan the card again');
    change({ weightG: said.grams });
    say({ band: 'accepted', title: weightText(said.grams), detail: 'on the scale' });
  };
  const nextService = () => {
    const list = found.rates.data?.rates ?? [];
    const at = list.findIndex((r) => rate !== null && rate !== 'cheapest' && r.carrier === rate.carrier && r.service === rate.service);
    const next = list[(at + 1) % Math.max(1, list.length)];
    if (!next && found.rates.data) {
      change({ weightG, rate: 'cheapest' });
      return say({ band: 'accepted', title: 'Label later', detail: 'it is asked for until a carrier gives one' });
    }
    if (!next) return no('No service yet', 'Weigh the parcel first');
    change({ weightG, rate: next });
    say({ band: 'accepted', title: next.carrierName, detail: next.name });
  };
  const hears = (code: string) => {
    const wanted = boxOf(code);
    if (wanted !== undefined) {
      if (!task.cartons.some((c) => c.code === wanted)) no(`Box ${wanted}`, 'There is no such box. Set it up, or scan another one');
      else {
        change({ carton: wanted });
        say({ band: 'accepted', title: `Box ${wanted}`, detail: 'for this parcel' });
      }
      return true;
    }
    switch (commandOf(code)) {
      case 'label':
        if (isReady) close();
        else no('No label yet', begun ? `It lacks: ${lacks.join(', ')}` : 'Nothing is in the parcel');
        return true;
      case 'weigh':
        void weigh();
        return true;
      case 'service':
        nextService();
        return true;
      case 'park':
        onPark();
        return true;
      default:
        return false;
    }
  };
  return {
    box,
    choice,
    change,
    weightG,
    expectedG,
    rate,
    begun,
    more,
    lacks,
    isReady,
    offWeight,
    hasScale: scale.scale !== undefined,
    close,
    hears,
    weigh: () => void weigh(),
    answered: (kind, parcel) => {
      if (kind === 'open-parcel') setKept({ parcel: 0, choice: noChoice });
      if (kind === 'close-parcel' || kind === 'open-parcel') setArmed(null);
      if (kind === 'pack' || kind === 'pack-all' || kind === 'pack-kit') setArmed(parcel);
      // What was waited for last stays behind: the parcel in use is what it is.
      if (kind === 'leave-out') setArmed(number);
    },
    refused: (command, title) => {
      setArmed(null);
      if (command.kind === 'close-parcel' && title === 'Weight is off') setRefusedAt({ parcel: command.parcel, weightG: command.weightG });
    },
  };
}
