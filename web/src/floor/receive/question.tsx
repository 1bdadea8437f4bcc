import { packName, spell } from '@vectrum/core/quantity';
import type { Codebook, ItemFacts, ReceiveQuestion, ReceiveTask } from '@vectrum/core/scan';
import { Link } from 'react-router';
import type { ReceiveInput } from '@vectrum/core/scan';
import type { FlowInput } from '../../flow/use-flow';
import { Ask, Key, PhoneList } from '../../ui/phone/parts';
import { Glyph } from '../../ui/glyph';

/** The words of the two answers to a question, where it has these. */
function answers(question: ReceiveQuestion, item: ItemFacts | undefined): { ask: string; apart: string | null; take: string } | null {
  switch (question.kind) {
    case 'not-ordered':
      return { ask: 'Nobody ordered this', apart: 'Set it apart', take: 'Take it in' };
    case 'over':
      return {
        ask: 'More than was ordered',
        apart: `Set ${item ? spell(question.units - question.most, item.packs) : 'the rest'} apart`,
        take: 'Take all, as an extra line',
      };
    case 'too-old':
      return { ask: 'Too old to take', apart: 'Set all of it apart', take: 'Take it all the same' };
    case 'so-many':
      return { ask: 'So many?', apart: null, take: item ? `Yes, ${spell(question.units, item.packs)} came` : 'Yes, so many came' };
    case 'unknown-code':
      return null;
  }
}

/** What to do with goods that the rules refuse: two keys in the thumb's reach. */
export function QuestionKeys({
  question,
  item,
  mayTake,
  input,
}: {
  question: ReceiveQuestion;
  item: ItemFacts | undefined;
  mayTake: boolean;
  input: (given: FlowInput<ReceiveInput>) => void;
}) {
  const words = answers(question, item);
  if (!words) return null;
  return (
    <>
      <Ask>{words.ask}</Ask>
      <div className="grid gap-[10px] px-[14px] mt-3">
        {words.apart !== null && (
          <Key type="button" next onClick={() => input({ kind: 'answer', answer: 'apart' })}>
            {words.apart}
          </Key>
        )}
        {question.kind === 'over' && question.open !== null && item && (
          <Key type="button" onClick={() => input({ kind: 'answer', answer: 'open' })}>
            Open a pack, keep {spell(question.open, item.packs)}
          </Key>
        )}
        {mayTake && (
          <Key type="button" onClick={() => input({ kind: 'answer', answer: 'take' })}>
            {words.take}
          </Key>
        )}
      </div>
    </>
  );
}

/** An unknown barcode: what is it on? One touch ties it to goods that are due. */
export function TieList({
  code,
  task,
  book,
  input,
}: {
  code: string;
  task: ReceiveTask;
  book: Codebook;
  input: (given: FlowInput<ReceiveInput>) => void;
}) {
  const items = [...new Set(task.lines.map((l) => l.itemId))].flatMap((id) => book.items[id] ?? []);
  return (
    <>
      <Ask>What is it on?</Ask>
      <PhoneList className="mt-3" aria-label="What the code is on">
        {items.flatMap((item) =>
          [...item.packs].reverse().map((pack) => (
            <li key={`${item.id}/${pack.id}`}>
              <button type="button" onClick={() => input({ kind: 'tie', itemId: item.id, packId: pack.id })}>
                <b>{item.name}</b>
                <span>{packName(pack, 1)}</span>
              </button>
            </li>
          )),
        )}
        <li>
          <Link to={`/floor/look?code=${encodeURIComponent(code)}`}>
            <b>Something else</b>
            <Glyph name="go" size={22} />
            <span>look it up and tie it there</span>
          </Link>
        </li>
      </PhoneList>
    </>
  );
}
