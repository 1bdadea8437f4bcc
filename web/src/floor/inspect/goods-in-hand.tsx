import { standOf } from '@vectrum/core/inspection';
import { spell } from '@vectrum/core/quantity';
import { answersOf, unjudged, type GoodsToInspect, type InspectState, type ItemFacts } from '@vectrum/core/scan';
import { QuantityPad } from '../../flow/quantity-pad';
import type { FlowInput } from '../../flow/use-flow';
import { plural, whole } from '../../ui/format';
import { Picture } from '../../ui/picture';
import { CheckRow } from './check-row';
import { RejectPanel } from './reject-panel';

/** The goods in hand: what to look at, how many are judged, and what becomes of them. */
export function GoodsInHand({
  goods,
  item,
  state,
  input,
  open,
  onOpen,
}: {
  goods: GoodsToInspect;
  item: ItemFacts;
  state: InspectState;
  input: (given: FlowInput) => void;
  open: 'count' | 'reject' | null;
  onOpen: (open: 'count' | 'reject' | null) => void;
}) {
  const answers = answersOf(goods, state);
  const stand = standOf(goods.checks, answers);
  const left = unjudged(goods, state);
  const units = state.units ?? left;
  const words = spell(units, item.packs);
  const pack = item.packs.find((p) => units > 0 && units % p.factor === 0) ?? item.packs.at(-1);
  const card = (
    <div className="f-card">
      <Picture name={item.picture} size={68} />
      <div>
        <h2>{item.name}</h2>
        <span>
          {spell(left, item.packs)} at {goods.place}
          {goods.lot && `, lot ${goods.lot}`}, from {goods.supplier}
        </span>
      </div>
    </div>
  );
  if (open === 'reject')
    return (
      <>
        {card}
        <RejectPanel
          words={words}
          found={stand.failed.map((c) => `${c.says}: ${answers[c.no] ?? ''}`)}
          reason={state.reason}
          input={input}
          onBack={() => onOpen(null)}
        />
      </>
    );
  return (
    <>
      {card}
      <h1 className="f-ask ask">{goods.checks.length > 0 && open === null ? 'Look at these' : 'How many are right?'}</h1>
      <p className="px-[18px] pt-1 text-[17px] text-[color:var(--color-ink-2)]">{goods.why.replace(/^./, (c) => c.toUpperCase())}</p>
      {open === null && goods.checks.length > 0 && (
        <div className="f-body mt-2">
          <ul className="f-list" aria-label="Checks">
            {goods.checks.map((check) => (
              <CheckRow key={check.no} check={check} value={answers[check.no]} input={input} />
            ))}
          </ul>
        </div>
      )}
      {(open === 'count' || goods.checks.length === 0) && (
        <div className="say" aria-live="polite">
          <b>{whole(units)}</b>
          <div>{units === left ? `${words}, all that wait` : `${words} of ${spell(left, item.packs)}`}</div>
        </div>
      )}
      {open === 'count' && pack && (
        <QuantityPad
          item={item}
          counts={{ [pack.id]: units / pack.factor }}
          active={pack.id}
          fresh={state.units === null}
          onCount={(packId, count) => input({ kind: 'count', packId, count })}
          onActive={(packId) => input({ kind: 'count', packId, count: 0 })}
        />
      )}
      <div style={{ marginTop: 'auto' }} />
      <div className="f-keys" style={{ marginTop: 10, paddingBottom: 10 }}>
        <button type="button" className="f-key" onClick={() => input({ kind: 'clear' })}>
          Back
        </button>
        <button type="button" className="f-key" aria-pressed={open === 'count'} onClick={() => onOpen(open === 'count' ? null : 'count')}>
          Fewer
        </button>
        <button type="button" className="f-key" onClick={() => onOpen('reject')}>
          Reject
        </button>
      </div>
      <div className="f-keys" style={{ marginTop: 0 }}>
        <button
          type="button"
          className="f-key next"
          style={{ minHeight: 72, fontSize: 22 }}
          disabled={stand.open.length > 0 || units === 0}
          onClick={() => {
            onOpen(null);
            input({ kind: 'confirm' });
          }}
        >
          {stand.open.length > 0
            ? `${plural(stand.open.length, 'check', 'checks')} to answer`
            : units === 0
              ? 'Nothing counted yet'
              : `Pass ${words}`}
        </button>
      </div>
      {stand.failed.length > 0 && stand.open.length === 0 && (
        <label className="block px-[14px] pb-[14px]">
          <span className="text-[17px]">A check was not fulfilled. Why it passes all the same:</span>
          <input
            className="w-full h-[64px] border-2 border-rule-firm bg-sheet px-3 text-[20px]"
            value={state.reason}
            maxLength={200}
            onChange={(e) => input({ kind: 'text', field: 'reason', value: e.target.value })}
          />
        </label>
      )}
    </>
  );
}
