import { commaLot, lotWords, spell } from '@vectrum/core/quantity';
import {
  isTallied,
  lotsListed,
  nextTallyBin,
  openTallyBins,
  tally,
  talliedIn,
  type TallyBin,
  type TallyInput,
  type TallyState,
  type TallyTask,
  tallyBinAt,
} from '@vectrum/core/scan';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { FeedbackBand } from '../../flow/band';
import { type Ready, TaskGate } from '../../flow/task-gate';
import { type Codebook, type FlowInput, useFlow } from '../../flow/use-flow';
import { plural } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Ask, Key, PhoneBody, PhoneHead, PhoneItem, PhoneLink, PhoneList, Say, TaskCard } from '../../ui/phone/parts';
import { Picture } from '../../ui/picture';
import { BinLabel } from '../bin-label';
import { CountPad } from '../count-pad';
import { DoneBin } from '../done-bin';
import { FloorTape } from '../floor-tape';
import { FloorKeys } from '../keys';
import { usePageScan } from '../scan-context';
import { CodeCount } from './code-count';
import { LotChoice } from './lot-choice';

/** Counts the bins of a count: bin, goods, number; the next bin. Works without a network. */
export function TallyPage() {
  const { code = '' } = useParams();
  return (
    <TaskGate kind="tally" taskKey={code} back={<Link to="/floor/count">‹ Counts</Link>}>
      {(ready) => <Tally ready={ready} />}
    </TaskGate>
  );
}

type Send = (input: FlowInput<TallyInput>) => void;

/** What is asked for next. */
function asked(task: TallyTask, state: TallyState, bin: TallyBin | undefined, isLotless: boolean): string {
  if (!bin) return task.bins.some((b) => b.isMine) ? 'Your bins are counted' : 'No bin is for you';
  if (state.at !== bin.placeId) return 'Scan the bin';
  if (state.code !== null) return 'How many of this?';
  if (state.hand) return isLotless ? 'Which lot?' : state.hand.units > 0 ? 'Scan on, or go on' : 'How many are there?';
  return 'Scan what lies there';
}

function Tally({ ready }: { ready: Ready<'tally'> }) {
  const { book } = ready;
  const { task } = ready.bundle;
  const flow = useFlow({ flow: tally, task, ready, document: task.document, documents: [task.document] });
  const { state, input } = flow;
  const [keying, setKeying] = useState(false);
  usePageScan((code, how) => {
    setKeying(false);
    flow.scan(code, how);
  });
  const bin = tallyBinAt(task, state) ?? nextTallyBin(task, state);
  const isAt = bin !== undefined && state.at === bin.placeId;
  const item = state.hand && book.items[state.hand.itemId];
  const isLotless = state.hand !== null && item?.tracking !== 'none' && state.hand.lot === null;
  const open = openTallyBins(task, state);
  const isNumbered = item?.tracking === 'serial';
  const isDone = bin !== undefined && isTallied(bin, state);
  const isBegun = isAt && talliedIn(bin, state).some((g) => g.counted !== null);
  return (
    <>
      <FeedbackBand feedback={flow.feedback} />
      <PhoneHead>
        <Link to="/floor/count">‹ Counts</Link>
        <span>{task.title}</span>
        <span>{plural(open.length, 'bin', 'bins')} left</span>
      </PhoneHead>
      <Ask>{asked(task, state, bin, isLotless)}</Ask>
      {bin && (
        <div className="mt-3">
          {isAt ? (
            <DoneBin code={bin.code} says={isDone ? 'counted' : 'being counted'} />
          ) : (
            <BinLabel code={bin.code} way={wayOf(bin, task.metres)} />
          )}
        </div>
      )}
      {state.code !== null && (
        <CodeCount code={state.code} onCount={(units) => input({ kind: 'code-number', units })} onBack={() => input({ kind: 'clear' })} />
      )}
      {isAt && state.hand && item && state.code === null && (
        <>
          <TaskCard here>
            <Picture name={item.picture} size={keying ? 56 : 84} />
            <div>
              <h2>{item.name}</h2>
              <p className="text-[17px]">
                {[
                  lotWords(item, state.hand.lot),
                  state.hand.isDamaged ? 'damaged' : '',
                  state.hand.units > 0 ? `${spell(state.hand.units, item.packs)} so far` : '',
                ]
                  .filter(Boolean)
                  .join(', ')}
              </p>
            </div>
          </TaskCard>
          {isLotless && <LotChoice item={item} lots={lotsListed(bin, state, item.id)} hand={state.hand} input={input} />}
          {!isLotless && keying && (
            <CountPad
              item={item}
              onCount={(units) => {
                setKeying(false);
                input({ kind: 'number', units });
              }}
              onBack={() => setKeying(false)}
            />
          )}
          {!keying && (
            <Say className="text-[17px]">
              <PhoneLink onClick={() => input({ kind: 'condition', isDamaged: !state.hand?.isDamaged })}>
                {state.hand.isDamaged ? 'It is good' : 'It is damaged'}
              </PhoneLink>{' '}
              <PhoneLink onClick={() => input({ kind: 'clear' })}>Let go</PhoneLink>
            </Say>
          )}
        </>
      )}
      {isAt && !state.hand && state.code === null && <Goods bin={bin} book={book} state={state} input={input} />}
      {!isAt && open.length > 1 && <Later bins={open.filter((b) => b !== bin)} input={input} />}
      {!bin && (
        <Say className="text-[18px]">
          {task.bins.some((b) => b.isMine)
            ? 'The office sees what you have counted. What was wrong can be said again until the count is closed: scan its bin.'
            : 'The office has shared them out among others, or the count is over.'}
        </Say>
      )}
      <div style={{ marginTop: 'auto' }} />
      {!keying && <FloorTape entries={flow.newest} onUndo={flow.undo} last={flow.last} unsent={flow.unsent} offline={flow.offline} />}
      {!keying && (
        <FloorKeys siteId={task.siteId} document={task.document} find={undefined} words={false}>
          {bin && !state.hand && !isDone && !isBegun && (
            <Key type="button" onClick={() => input({ kind: 'empty' })}>
              {isAt ? 'It is empty' : 'Empty'}
            </Key>
          )}
          {isAt && state.hand && !isLotless && !isNumbered && !task.scanEach && (
            <Key type="button" next={state.hand.units === 0} onClick={() => setKeying(true)}>
              Number
            </Key>
          )}
          {isAt && state.hand && state.hand.units > 0 && !isLotless && (
            <Key type="button" next onClick={() => input({ kind: 'confirm' })}>
              That is all
            </Key>
          )}
          {isAt && !state.hand && state.code === null && !isDone && isBegun && (
            <Key
              type="button"
              next={bin.lines.every((l) => talliedIn(bin, state).find((t) => t.itemId === l.itemId && t.lot === l.lot)?.counted !== null)}
              onClick={() => input({ kind: 'finish' })}
            >
              Bin is done
            </Key>
          )}
        </FloorKeys>
      )}
    </>
  );
}

/** How many there are on its list, and how far the whole walk is. */
const wayOf = (bin: TallyBin, metres: number): string =>
  `${bin.lines.length === 0 ? 'nothing on its list' : `${bin.lines.length} on its list`}${metres > 0 ? `, ${metres} m in all` : ''}`;

/** What lies in the bin, as far as it is counted. */
function Goods({ bin, book, state, input }: { bin: TallyBin; book: Codebook; state: TallyState; input: Send }) {
  const goods = talliedIn(bin, state);
  if (goods.length === 0)
    return <Say className="mt-3 text-[18px]">Nothing is on the list of this bin. Scan what lies in it, or say that it is empty.</Say>;
  return (
    <PhoneBody className="mt-3">
      <PhoneList>
        {goods.map((g) => {
          const item = book.items[g.itemId];
          const listed = bin.lines.find((l) => l.itemId === g.itemId && l.lot === g.lot && l.isDamaged === g.isDamaged);
          return (
            <PhoneItem key={`${g.itemId}/${g.lot ?? ''}/${String(g.isDamaged)}`}>
              <button type="button" onClick={() => input({ kind: 'choose', itemId: g.itemId, lot: g.lot, isDamaged: g.isDamaged })}>
                <b>
                  {item?.name}
                  {commaLot(item, g.lot)}
                </b>
                <Glyph name={g.counted === null ? 'empty' : 'full'} size={24} says />
                <span>
                  {g.counted === null ? 'not counted yet' : spell(g.counted, item?.packs ?? [])}
                  {g.isDamaged && ', damaged'}
                  {!g.isListed && ', not on the list'}
                  {listed?.booked != null && `, the books have ${spell(listed.booked, item?.packs ?? [])}`}
                </span>
              </button>
            </PhoneItem>
          );
        })}
      </PhoneList>
    </PhoneBody>
  );
}

function Later({ bins, input }: { bins: readonly TallyBin[]; input: Send }) {
  return (
    <PhoneBody className="mt-3">
      <Say className="text-[17px]">Then</Say>
      <PhoneList>
        {bins.map((b) => (
          <PhoneItem key={b.placeId}>
            <button type="button" onClick={() => input({ kind: 'code', code: b.code, how: 'typed' })}>
              <b className="code">{b.code}</b>
              <Glyph name={b.state === 'begun' ? 'half' : 'empty'} size={24} says />
              <span>{wayOf(b, 0)}</span>
            </button>
          </PhoneItem>
        ))}
      </PhoneList>
    </PhoneBody>
  );
}
