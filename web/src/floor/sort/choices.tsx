import { commaLot, spell } from '@vectrum/core/quantity';
import type { Codebook, SortGoods, SortTask } from '@vectrum/core/scan';
import { NoItem, PhoneItem, PhoneLink, PhoneList, Say } from '../../ui/phone/parts';

/** The lots of goods of which several are to be sorted. */
export function LotsAsked({ lots, onLot }: { lots: readonly string[]; onLot: (lot: string) => void }) {
  return (
    <Say className="text-[17px]">
      It is{' '}
      {lots.slice(0, 4).map((lot) => (
        <PhoneLink key={lot} onClick={() => onLot(lot)}>
          {lot}
        </PhoneLink>
      ))}
    </Say>
  );
}

/** What is still to be sorted, each to be given up where no tote has it. */
export function MissingGoods({
  task,
  left,
  book,
  onMissing,
}: {
  task: SortTask;
  left: readonly SortGoods[];
  book: Codebook;
  onMissing: (goods: SortGoods) => void;
}) {
  return (
    <>
      <Say className="text-[17px]">What is in no tote? Its bin will be counted, and the order goes on without it.</Say>
      <PhoneList aria-label="Goods still to be sorted">
        {left.map((g) => (
          <PhoneItem key={`${g.orderId} ${g.itemId} ${g.lotId} ${g.toteId}`}>
            <button type="button" onClick={() => onMissing(g)}>
              <b>{book.items[g.itemId]?.name}</b>
              <span className="code">{g.tote}</span>
              <span>
                {spell(g.units, book.items[g.itemId]?.packs ?? [])}
                {commaLot(book.items[g.itemId], g.lot)}, for {task.orders.find((o) => o.id === g.orderId)?.customer}
              </span>
            </button>
          </PhoneItem>
        ))}
        {left.length === 0 && <NoItem>Nothing is left to sort.</NoItem>}
      </PhoneList>
    </>
  );
}
