import { spell } from '@vectrum/core/quantity';
import {
  checkWhole,
  wholeOf,
  type Codebook,
  type ReceiveInput,
  type ReceiveLine,
  type ReceiveState,
  type ReceiveTask,
} from '@vectrum/core/scan';
import type { FlowInput } from '../../flow/use-flow';
import { plural } from '../../ui/format';
import { Ask, Key, Keys, PhoneBody, PhoneList } from '../../ui/phone/parts';

/** The rest of a delivery as it stands on the paper: first the lines that must be counted, then all of it by one key. */
export function WholePanel({
  task,
  state,
  book,
  input,
  onChoose,
  onBack,
}: {
  task: ReceiveTask;
  state: ReceiveState;
  book: Codebook;
  input: (given: FlowInput<ReceiveInput>) => void;
  /** A line of the sample is counted now. */
  onChoose: (code: string) => void;
  onBack: () => void;
}) {
  const whole = wholeOf(task, book.items, state);
  const refusal = checkWhole(task, whole);
  const first = whole.sample.length > 0;
  return (
    <>
      <Ask>{first ? `Count ${plural(whole.sample.length, 'this line', 'lines')} first` : 'The rest as on the paper?'}</Ask>
      <PhoneBody className="mt-3">
        {first && (
          <p className="px-[18px] pb-2 text-[17px]">
            They stand for the others. When all of them is here, the rest may be taken as a whole.
          </p>
        )}
        {refusal && !first && <p className="px-[18px] pb-2 text-[17px]">{refusal.detail}</p>}
        <PhoneList>
          {first
            ? whole.sample.map((line) => (
                <li key={line.lineId}>
                  <button type="button" onClick={() => onChoose(book.items[line.itemId]?.sku ?? '')}>
                    <b>{book.items[line.itemId]?.name}</b>
                    <span className="code">{book.items[line.itemId]?.sku}</span>
                  </button>
                </li>
              ))
            : whole.lines.map(({ line, units }) => (
                <Row key={line.lineId} line={line} book={book} says={spell(units, book.items[line.itemId]?.packs ?? [])} />
              ))}
          {whole.counted.map((line) => (
            <Row key={line.lineId} line={line} book={book} says="counted in any case: lot, number or a look at it" />
          ))}
        </PhoneList>
      </PhoneBody>
      <Keys style={{ marginTop: 12, gridAutoColumns: 'auto', gridTemplateColumns: '104px 1fr' }}>
        <Key type="button" onClick={onBack}>
          Back
        </Key>
        <Key
          type="button"
          next
          disabled={refusal !== null}
          onClick={() => {
            input({ kind: 'whole' });
            onBack();
          }}
        >
          {first ? 'Count the sample first' : `Book in ${plural(whole.lines.length, 'line', 'lines')} to ${(state.to ?? task.dock).code}`}
        </Key>
      </Keys>
    </>
  );
}

function Row({ line, book, says }: { line: ReceiveLine; book: Codebook; says: string }) {
  return (
    <li className="px-[18px] py-2">
      <b>{book.items[line.itemId]?.name}</b>
      <span>{says}</span>
    </li>
  );
}
