import { standOf } from '@vectrum/core/inspection';
import { commaLot, spell } from '@vectrum/core/quantity';
import { answersOf, unjudged, type GoodsToInspect, type InspectState, type ItemFacts } from '@vectrum/core/scan';
import { QuantityPad } from '../../flow/quantity-pad';
import type { InspectInput } from '@vectrum/core/scan';
import type { FlowInput } from '../../flow/use-flow';
import { plural, whole } from '../../ui/format';
import { Picture } from '../../ui/picture';
import { CheckRow } from './check-row';
import { RejectPanel } from './reject-panel';
import { WhyPanel } from './why-panel';
import { GoodsCard, Ask, PhoneBody, PhoneList, Keys, Key, Count } from '../../ui/phone/parts';

/** What the big key says: what is lacking, or what it does. */
function nextWords(openChecks: number, units: number, act: string): string {
  if (openChecks > 0) return `${plural(openChecks, 'check', 'checks')} to answer`;
  return units === 0 ? 'Nothing counted yet' : act;
}

/** What is open beside the checks: the pad, why goods are rejected, or why they pass in spite of a check. */
export type InspectPanel = 'count' | 'reject' | 'why';

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
  input: (given: FlowInput<InspectInput>) => void;
  open: InspectPanel | null;
  onOpen: (open: InspectPanel | null) => void;
}) {
  const answers = answersOf(goods, state);
  const stand = standOf(goods.checks, answers);
  const left = unjudged(goods, state);
  const units = state.hand?.units ?? left;
  const words = spell(units, item.packs);
  const failed = stand.open.length === 0 && stand.failed.length > 0;
  const pack = item.packs.find((p) => units > 0 && units % p.factor === 0) ?? item.packs.at(-1);
  const card = (
    <GoodsCard>
      <Picture name={item.picture} size={68} />
      <div>
        <h2>{item.name}</h2>
        <span>
          {spell(left, item.packs)} at {goods.place}
          {commaLot(item, goods.lot)}, from {goods.supplier}
        </span>
      </div>
    </GoodsCard>
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
  if (open === 'why')
    return (
      <>
        {card}
        <WhyPanel words={words} reason={state.reason} input={input} onBack={() => onOpen(null)} />
      </>
    );
  return (
    <>
      {card}
      <Ask>{goods.checks.length > 0 && open === null ? 'Look at these' : 'How many are right?'}</Ask>
      <p className="px-[18px] pt-1 text-[17px] text-[color:var(--color-ink-2)]">{goods.why.replace(/^./, (c) => c.toUpperCase())}</p>
      {open === null && goods.checks.length > 0 && (
        <PhoneBody className="mt-2">
          <PhoneList aria-label="Checks">
            {goods.checks.map((check) => (
              <CheckRow key={check.no} check={check} value={answers[check.no]} input={input} />
            ))}
          </PhoneList>
        </PhoneBody>
      )}
      {(open === 'count' || goods.checks.length === 0) && (
        <Count aria-live="polite">
          <b>{whole(units)}</b>
          <div>{units === left ? `${words}, all that wait` : `${words} of ${spell(left, item.packs)}`}</div>
        </Count>
      )}
      {open === 'count' && pack && (
        <QuantityPad
          item={item}
          counts={{ [pack.id]: units / pack.factor }}
          active={pack.id}
          fresh={state.hand?.units === state.hand?.of}
          onCount={(packId, count) => input({ kind: 'count', packId, count })}
          onActive={(packId) => input({ kind: 'count', packId, count: 0 })}
        />
      )}
      <div style={{ marginTop: 'auto' }} />
      <Keys style={{ marginTop: 10, paddingBottom: 10 }}>
        <Key type="button" onClick={() => input({ kind: 'clear' })}>
          Back
        </Key>
        <Key type="button" aria-pressed={open === 'count'} onClick={() => onOpen(open === 'count' ? null : 'count')}>
          Fewer
        </Key>
        <Key type="button" onClick={() => onOpen(failed ? 'why' : 'reject')}>
          {failed ? 'Pass all the same' : 'Reject'}
        </Key>
      </Keys>
      <Keys style={{ marginTop: 0 }}>
        <Key
          type="button"
          next
          style={{ minHeight: 72, fontSize: 22 }}
          disabled={stand.open.length > 0 || units === 0}
          onClick={() => {
            onOpen(failed ? 'reject' : null);
            if (!failed) input({ kind: 'verdict', verdict: 'pass' });
          }}
        >
          {nextWords(stand.open.length, units, failed ? `Reject ${words}` : `Pass ${words}`)}
        </Key>
      </Keys>
    </>
  );
}
