import { spell } from '@vectrum/core/quantity';
import {
  countedUnits,
  destination,
  lineOf,
  proposedLot,
  receivedOn,
  type ItemFacts,
  type ReceiveState,
  type ReceiveTask,
} from '@vectrum/core/scan';
import { QuantityPad } from '../../flow/quantity-pad';
import type { ReceiveInput } from '@vectrum/core/scan';
import type { FlowInput } from '../../flow/use-flow';
import { whole } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Picture } from '../../ui/picture';
import { PrintLabel } from '../print-label';
import { QuestionKeys } from './question';
import { Keys, Key, GoodsCard, Ask, Count, PhoneLink } from '../../ui/phone/parts';

function Facts({
  item,
  state,
  noLot,
  input,
}: {
  item: ItemFacts;
  state: ReceiveState;
  /** The lot that goods get whose label names none. */
  noLot: string;
  input: (given: FlowInput<ReceiveInput>) => void;
}) {
  if (item.tracking === 'none') return null;
  return (
    <div className="ans">
      <label>
        <span className="cap">{item.tracking === 'serial' ? 'Serial number' : 'Lot'}</span>
        <input
          data-scan="lot"
          value={state.lot ?? ''}
          placeholder="scan or type"
          maxLength={20}
          onChange={(e) => input({ kind: 'text', field: 'lot', value: e.target.value })}
          className="code"
        />
      </label>
      {item.tracking === 'lot-expiry' && (
        <label>
          <span className="cap">Best before</span>
          <input
            type="date"
            value={state.expires ?? ''}
            onChange={(e) => input({ kind: 'text', field: 'expires', value: e.target.value })}
          />
        </label>
      )}
      {item.tracking !== 'serial' && (state.lot ?? '') === '' && (
        <span className="col-span-full border-t-2 border-rule">
          <PhoneLink onClick={() => input({ kind: 'text', field: 'lot', value: noLot })}>No lot on it? Give it {noLot}</PhoneLink>
        </span>
      )}
    </div>
  );
}

function hint(task: ReceiveTask, state: ReceiveState, item: ItemFacts): string {
  const hand = state.hand;
  if (hand?.as === 'apart') return `set apart: ${hand.reason ?? ''}`;
  if (hand?.as === 'unordered') return 'on no order';
  const line = lineOf(task, hand?.lineId ?? null);
  const rest = line ? line.ordered - receivedOn(task, state, line.lineId) : 0;
  return rest > 0 ? `${spell(rest, item.packs)} to come` : 'all of it is here';
}

/** Instead of an answer: the pad again, with what was counted. */
function Again({ state, item, input }: { state: ReceiveState; item: ItemFacts; input: (given: FlowInput<ReceiveInput>) => void }) {
  const packId = state.activePackId ?? item.packs[0]?.id ?? 0;
  return (
    <Keys>
      <Key type="button" onClick={() => input({ kind: 'count', packId, count: state.counts[packId] ?? 0 })}>
        Count again
      </Key>
      <Key type="button" onClick={() => input({ kind: 'clear' })}>
        Leave it
      </Key>
    </Keys>
  );
}

/** The goods in hand: counted by pack, with lot and date where they are kept by them, damaged or not, and where they go. */
export function Counting({
  task,
  today,
  state,
  item,
  input,
}: {
  task: ReceiveTask;
  /** At the site, as an ISO date. */
  today: string;
  state: ReceiveState;
  item: ItemFacts;
  input: (given: FlowInput<ReceiveInput>) => void;
}) {
  const units = countedUnits(state, item);
  const line = lineOf(task, state.hand?.lineId ?? null);
  const over = line ? units - (line.ordered - receivedOn(task, state, line.lineId)) : 0;
  const words = spell(units, item.packs);
  const to = destination(task, state).code;
  const damaged = state.condition === 'damaged';
  return (
    <>
      <GoodsCard>
        <Picture name={item.picture} size={68} />
        <div>
          <h2>{item.name}</h2>
          <span>{hint(task, state, item)}</span>
        </div>
      </GoodsCard>
      <Facts item={item} state={state} noLot={proposedLot(today, task.document)} input={input} />
      {state.question ? (
        <QuestionKeys question={state.question} item={item} mayTake={task.mayTake} input={input} />
      ) : (
        <Ask>{damaged ? 'How many are damaged?' : 'How many came?'}</Ask>
      )}
      <Count aria-live="polite">
        <b>{whole(units)}</b>
        <div>
          {units > 0 ? words : 'Count, or scan each pack'}
          {over > 0 && units > 0 && (
            <span className="beyond">
              <Glyph name="over" />
              {over} more than ordered
            </span>
          )}
        </div>
      </Count>
      {state.question ? (
        <Again state={state} item={item} input={input} />
      ) : (
        <>
          <QuantityPad
            item={item}
            counts={state.counts}
            active={state.activePackId ?? item.packs[0]?.id ?? 0}
            fresh={!state.keyed}
            onCount={(packId, count) => input({ kind: 'count', packId, count })}
            onActive={(packId) => input({ kind: 'count', packId, count: state.counts[packId] ?? 0 })}
          />
          <div style={{ marginTop: 'auto' }} />
          <Keys style={{ marginTop: 10, paddingBottom: 10 }}>
            <Key type="button" onClick={() => input({ kind: 'clear' })}>
              Back
            </Key>
            <Key
              type="button"

              aria-pressed={damaged}
              onClick={() => input({ kind: 'condition', condition: damaged ? 'good' : 'damaged' })}
            >
              Damaged
            </Key>
            <PrintLabel subject="item" code={item.sku} holds={1} lot={state.lot} expires={state.expires} says="Label" />
          </Keys>
          <Keys style={{ marginTop: 0 }}>
            <Key
              type="button"
              next
              style={{ minHeight: 72, fontSize: 22 }}
              disabled={units === 0}
              onClick={() => input({ kind: 'confirm' })}
            >
              {units === 0 ? (
                'Nothing counted yet'
              ) : (
                <span>
                  {state.hand?.as === 'apart' ? 'Set apart' : 'Book in'} {words} to <span className="whitespace-nowrap">{to}</span>
                </span>
              )}
            </Key>
          </Keys>
        </>
      )}
    </>
  );
}
