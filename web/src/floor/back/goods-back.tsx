import { CAME_AS, CAME_AS_NAMES, type Fate, FATES, FATE_NAMES, maySell, RETURN_REASONS } from '@vectrum/core/customer-returns';
import { spell } from '@vectrum/core/quantity';
import {
  type ComeBackInput,
  type GoodsComingBack,
  type ItemFacts,
  proposedFate,
  type ReturnHand,
  type ReturnTask,
} from '@vectrum/core/scan';
import { QuantityPad } from '../../flow/quantity-pad';
import type { FlowInput } from '../../flow/use-flow';
import { Picture } from '../../ui/picture';
import { Ask, GoodsCard, Key, Keys, PhoneBody } from '../../ui/phone/parts';
import { ReturnPicture } from './return-picture';

interface Props {
  task: ReturnTask;
  goods: GoodsComingBack;
  item: ItemFacts;
  hand: ReturnHand;
  left: number;
  input: (given: FlowInput<ComeBackInput>) => void;
  counting: boolean;
  onCounting: (open: boolean) => void;
}

/** The goods in hand: which lot, how they came, and what becomes of them. */
export function GoodsBack({ task, goods, item, hand, left, input, counting, onCounting }: Props) {
  const words = spell(hand.units, item.packs);
  const needsLot = item.tracking !== 'none' && !hand.lot;
  const pack = item.packs.find((p) => hand.units > 0 && hand.units % p.factor === 0) ?? item.packs.at(-1);
  return (
    <>
      <GoodsCard>
        <Picture name={item.picture} size={68} />
        <div>
          <h2>{item.name}</h2>
          <span>
            {words}
            {hand.lot && `, ${item.tracking === 'serial' ? 'number' : 'lot'} ${hand.lot}`}
            {hand.number && `, number ${hand.number}`}. {RETURN_REASONS[goods.reason].says}
          </span>
        </div>
      </GoodsCard>
      {counting && pack ? (
        <QuantityPad
          item={item}
          counts={{ [pack.id]: hand.units / pack.factor }}
          active={pack.id}
          fresh
          onCount={(packId, count) => input({ kind: 'count', packId, count })}
          onActive={(packId) => input({ kind: 'count', packId, count: 0 })}
        />
      ) : needsLot ? (
        <LotChoice goods={goods} item={item} input={input} />
      ) : hand.cameAs === null ? (
        <>
          <Ask>How did it come back?</Ask>
          <div className="grid grid-cols-2 gap-[10px] px-[14px] mt-3">
            {CAME_AS_NAMES.map((as) => (
              <Key key={as} type="button" onClick={() => input({ kind: 'came', as })}>
                {CAME_AS[as]}
              </Key>
            ))}
          </div>
        </>
      ) : (
        <FateChoice task={task} item={item} hand={hand} input={input} />
      )}
      <div style={{ marginTop: 'auto' }} />
      <Keys style={{ marginTop: 10 }}>
        <Key type="button" onClick={() => (counting ? onCounting(false) : input({ kind: 'clear' }))}>
          {counting ? 'Done' : 'Back'}
        </Key>
        {!counting && left > 1 && item.tracking !== 'serial' && hand.number === null && (
          <Key type="button" onClick={() => onCounting(true)}>
            How many
          </Key>
        )}
        {!counting && <ReturnPicture code={task.code} />}
      </Keys>
    </>
  );
}

/** Which of the lots that left with the order; where nobody knows the order, the lot that is printed on the goods. */
function LotChoice({ goods, item, input }: Pick<Props, 'goods' | 'item' | 'input'>) {
  const what = item.tracking === 'serial' ? 'number' : 'lot';
  return (
    <>
      <Ask>{goods.lots.length > 0 ? `Scan or choose its ${what}` : `Type the ${what} that is printed on it`}</Ask>
      <PhoneBody className="mt-3">
        <div className="grid grid-cols-2 gap-[10px] px-[14px]">
          {goods.lots.map((l) => (
            <Key key={l.lot} type="button" className="code" onClick={() => input({ kind: 'lot', lot: l.lot })}>
              {l.lot}
            </Key>
          ))}
        </div>
        {goods.orderLineId === null && (
          <form
            className="px-[14px] mt-3 flex gap-[10px]"
            onSubmit={(e) => {
              e.preventDefault();
              const lot = new FormData(e.currentTarget).get('lot');
              if (typeof lot === 'string' && lot.trim() !== '') input({ kind: 'lot', lot: lot.trim().toUpperCase() });
            }}
          >
            <input
              name="lot"
              aria-label={what}
              autoComplete="off"
              maxLength={60}
              className="flex-1 min-w-0 h-[64px] border-2 border-rule-firm bg-sheet px-3 text-[20px]"
            />
            <Key next className="px-5">
              Enter
            </Key>
          </form>
        )}
      </PhoneBody>
    </>
  );
}

/** What becomes of them, a key each: what is proposed has the highlighter, and says why. */
function FateChoice({ task, item, hand, input }: Pick<Props, 'task' | 'item' | 'hand' | 'input'>) {
  const proposed = proposedFate(task, item, hand);
  const may = (fate: Fate) => {
    if (fate === 'shelf') return hand.cameAs !== null && maySell(hand.cameAs);
    if (fate === 'repair') return hand.cameAs === 'faulty' && task.order !== null && task.quarantine !== null;
    return fate !== 'quarantine' || task.quarantine !== null;
  };
  const others = FATE_NAMES.filter((f) => f !== proposed?.fate && may(f));
  return (
    <>
      <Ask>What becomes of it?</Ask>
      <PhoneBody>
        <label className="block px-[14px] mt-3">
          <span className="text-[17px]">
            {hand.cameAs && CAME_AS[hand.cameAs]}.{' '}
            {hand.cameAs === 'as-new' ? 'A note, if there is any' : 'What is wrong, in your own words'}
          </span>
          <input
            className="w-full h-[56px] border-2 border-rule-firm bg-sheet px-3 text-[20px]"
            value={hand.note}
            maxLength={200}
            onChange={(e) => input({ kind: 'note', value: e.target.value })}
          />
        </label>
        <div className="grid grid-cols-2 gap-[10px] px-[14px] mt-3 pb-3">
          {proposed && may(proposed.fate) && (
            <Key
              type="button"
              next
              className="col-span-2 flex-col"
              style={{ minHeight: 84 }}
              onClick={() => input({ kind: 'fate', fate: proposed.fate })}
            >
              <span className="block text-[22px]">{FATES[proposed.fate]}</span>
              <span className="block text-[16px] font-normal">{proposed.why}</span>
            </Key>
          )}
          {others.map((fate) => (
            <Key key={fate} type="button" onClick={() => input({ kind: 'fate', fate })}>
              {FATES[fate]}
            </Key>
          ))}
        </div>
        {!task.quarantine && <p className="px-[18px] text-[17px]">This site has no quarantine. Make one in the office, under Shelves.</p>}
      </PhoneBody>
    </>
  );
}
