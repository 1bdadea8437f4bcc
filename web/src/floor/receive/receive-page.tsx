import { spell } from '@vectrum/core/quantity';
import { isFor } from '@vectrum/core/places';
import {
  findWords,
  palletIsIn,
  receive,
  receivedOn,
  type Codebook,
  type Feedback,
  type How,
  type PlaceFacts,
  type ReceiveCommand,
  type ReceiveLine,
} from '@vectrum/core/scan';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Link, useLocation, useNavigate, useParams } from 'react-router';
import { FeedbackBand } from '../../flow/band';
import { type Ready, TaskGate } from '../../flow/task-gate';
import { useFlow } from '../../flow/use-flow';
import { plural, whole } from '../../ui/format';
import { Glyph, progressGlyph } from '../../ui/glyph';
import { FloorTape } from '../floor-tape';
import { FloorKeys } from '../keys';
import { usePageScan } from '../scan-context';
import { PrintLabel } from '../print-label';
import { ClosePanel } from './close-panel';
import { Counting } from './counting';
import { DamagePicture } from './damage-picture';
import { PlaceList } from './place-list';
import { QuestionKeys, TieList } from './question';
import { WholePanel } from './whole-panel';
import { PhoneHead, PhoneBody, PhoneLink, Ask, PhoneList, Key } from '../../ui/phone/parts';

/** Loads the task of one order or arrival and the site's codes, then runs the flow. */
export function ReceivePage() {
  const { code = '' } = useParams();
  return (
    <TaskGate key={code} kind="receive" taskKey={code} back={<Link to="/floor/receive">‹ What is due</Link>}>
      {(ready) => <Receive ready={ready} />}
    </TaskGate>
  );
}

/** What stands in the place of the list of lines. */
type Panel = 'close' | 'whole' | 'places' | null;

function Receive({ ready }: { ready: Ready<'receive'> }) {
  const [panel, setPanel] = useState<Panel>(null);
  const back = () => setPanel(null);
  const navigate = useNavigate();
  const [pictured, setPictured] = useState<{ receiptId: number; name: string } | null>(null);
  // Goods without a barcode of their own that were just booked in: each piece may want a label.
  const [bare, setBare] = useState<ReceiveCommand | null>(null);
  const { book } = ready;
  const { task } = ready.bundle;
  const flow = useFlow({
    flow: receive,
    task,
    ready,
    document: task.document,
    onOpens: ({ document, scan: code }, says) =>
      void navigate(`/floor/receive/${document}`, { state: { says, scanned: code === null ? undefined : { code, how: 'scanned' } } }),
    onAnswer: (command, { receiptId }) => {
      if (command.kind === 'receive' && command.as !== 'apart') setBare(isBare(book, command.itemId) ? command : null);
      const aside = command.kind === 'receive' && (command.condition === 'damaged' || command.as === 'apart');
      if (aside && receiptId !== undefined) setPictured({ receiptId, name: book.items[command.itemId]?.name ?? 'it' });
    },
  });
  const { state, input, scan } = flow;
  usePageScan(scan);
  useFirstScan(scan, flow.show);
  const chosen = (code: string) => {
    back();
    scan(code, 'typed');
  };
  const due = useMemo(() => new Set(task.lines.map((l) => l.itemId)), [task.lines]);
  const item = state.hand ? book.items[state.hand.itemId] : undefined;
  const done = task.lines.filter((l) => receivedOn(task, state, l.lineId) >= l.ordered).length;
  const pallets = task.pallets.filter((p) => !palletIsIn(p, state)).length;
  return (
    <>
      <FeedbackBand feedback={flow.feedback} />
      <PhoneHead>
        <Link to="/floor/receive" className="code">
          ‹ {task.document}
        </Link>
        <span style={{ fontWeight: 500, color: 'var(--color-ink-2)' }} className="overflow-hidden text-ellipsis whitespace-nowrap">
          {task.supplier}
        </span>
        <span>{task.lines.length > 0 && `${done} of ${task.lines.length}`}</span>
      </PhoneHead>
      {panel === 'close' ? (
        <ClosePanel task={task} state={state} book={book} input={input} onBack={back} />
      ) : panel === 'places' ? (
        <PlaceList book={book} siteId={task.dock.siteId} onChoose={chosen} onBack={back} />
      ) : panel === 'whole' ? (
        <WholePanel task={task} state={state} book={book} input={input} onChoose={chosen} onBack={back} />
      ) : item ? (
        <Counting task={task} today={book.today} state={state} item={item} input={input} />
      ) : (
        <>
          {state.question?.kind === 'unknown-code' ? (
            <PhoneBody>
              <TieList code={state.question.code} task={task} book={book} input={input} />
            </PhoneBody>
          ) : (
            <>
              {state.question ? (
                <QuestionKeys question={state.question} item={undefined} mayTake={task.mayTake} input={input} />
              ) : (
                <Ask>
                  {task.lines.length > 0 && done === task.lines.length
                    ? 'All lines are in'
                    : pallets > 0
                      ? `Scan ${plural(pallets, 'the pallet', 'pallets')} or the goods`
                      : 'Scan the goods'}
                </Ask>
              )}
              <p className="px-[18px] pt-1 text-[17px] text-[color:var(--color-ink-2)]">
                Goods go to <b className="code">{(state.to ?? task.dock).code}</b>
                <PhoneLink onClick={() => setPanel('places')}>elsewhere</PhoneLink>
              </p>
              <PhoneBody className="mt-3">
                <PhoneList>
                  {task.lines.map((l) => (
                    <Line
                      key={l.lineId}
                      line={l}
                      come={receivedOn(task, state, l.lineId)}
                      looked={task.inspect[l.itemId] !== undefined}
                      book={book}
                      onChoose={(code) => scan(code, 'typed')}
                    />
                  ))}
                  {task.whole.may && task.lines.length - done > 1 && (
                    <li>
                      <button type="button" onClick={() => setPanel('whole')}>
                        <b>The rest as on the paper</b>
                        <Glyph name="go" size={22} />
                        <span>without counting each line</span>
                      </button>
                    </li>
                  )}
                </PhoneList>
              </PhoneBody>
            </>
          )}
          {bare && state.question === null && (
            <div className="px-[14px] mb-3">
              <PrintLabel
                key={bare.id}
                subject="item"
                code={book.items[bare.itemId]?.sku ?? ''}
                holds={1}
                lot={bare.lot}
                expires={bare.expires}
                copies={Math.min(bare.units, MOST_LABELS)}
                says={`Print ${plural(Math.min(bare.units, MOST_LABELS), 'label', 'labels')} for ${book.items[bare.itemId]?.name ?? 'them'}`}
              />
            </div>
          )}
          {pictured !== null && state.question === null && <DamagePicture {...pictured} onDone={() => setPictured(null)} />}
          <FloorTape entries={flow.newest} onUndo={flow.undo} last={flow.last} unsent={flow.unsent} offline={flow.offline} />
          <FloorKeys
            siteId={task.dock.siteId}
            document={task.document}
            find={(text) => findWords(book, text, 6, { first: due, place: receives })}
          >
            <Key type="button" onClick={() => setPanel('close')}>
              Close the delivery
            </Key>
          </FloorKeys>
        </>
      )}
    </>
  );
}

/** Labels that one key prints; more are printed in the office. */
const MOST_LABELS = 200;

/** Whether no code but its SKU leads to an item: what comes of it wears no barcode. */
const isBare = (book: Codebook, itemId: number): boolean => {
  const sku = book.items[itemId]?.sku;
  return !Object.entries(book.codes).some(([code, of]) => of.itemId === itemId && code !== sku);
};

const receives = (place: PlaceFacts): boolean => isFor(place.kind, 'receive');

/** The goods or the pallet whose scan led here count as scanned here; what was said on the way is said here too. */
function useFirstScan(scan: (code: string, how: How) => void, show: (says: Feedback | null) => void): void {
  const { state } = useLocation() as { state: { scanned?: { code: string; how: How }; says?: Feedback | null } | null };
  const first = useRef(state);
  useEffect(() => {
    const came = first.current;
    first.current = null;
    if (came?.scanned) scan(came.scanned.code, came.scanned.how);
    else if (came?.says) show(came.says);
  }, [scan, show]);
}

function Line({
  line,
  come,
  looked,
  book,
  onChoose,
}: {
  line: ReceiveLine;
  come: number;
  /** Whether its goods must be looked at before they are stock. */
  looked: boolean;
  book: Codebook;
  onChoose: (code: string) => void;
}) {
  const facts = book.items[line.itemId];
  const left = line.ordered - come;
  return (
    <li>
      <button type="button" disabled={!facts} onClick={() => facts && onChoose(facts.sku)}>
        <b>{facts?.name ?? 'unknown item'}</b>
        <Glyph name={progressGlyph(come, line.ordered)} size={24} says />
        <span>
          {come > 0 ? `${whole(come)} of ${whole(line.ordered)}, ` : ''}
          {facts && left > 0 ? `${spell(left, facts.packs)} to come` : left < 0 ? `${-left} over` : 'all here'}
          {looked && ', looked at first'}
        </span>
      </button>
    </li>
  );
}
