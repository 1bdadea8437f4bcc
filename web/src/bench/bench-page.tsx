import { resolve } from '@vectrum/core/scan';
import { useEffect } from 'react';
import { Link, Navigate, useNavigate, useParams } from 'react-router';
import { api, ask, at, ProblemError } from '../api/client';
import { useLive } from '../api/live';
import { useMe, useSite } from '../api/queries';
import { dayIn } from '../api/site-day';
import { useCameraOpen } from '../camera/camera-open';
import { CameraPanel } from '../camera/camera-panel';
import { FeedbackBand } from '../flow/band';
import { useBook } from '../flow/book';
import { keepShell } from '../flow/shell-worker';
import { TaskGate } from '../flow/task-gate';
import { useTask } from '../flow/tasks';
import { KeptWord } from '../flow/kept-word';
import { untilWords, when } from '../ui/format';
import { Glyph } from '../ui/glyph';
import { MarkName } from '../ui/mark';
import { useScanner } from '../scanner/use-scanner';
import { SiteChoice } from '../floor/device-switches';
import { BenchQueue } from './bench-queue';
import { isPaper } from './papers';
import { Packing } from './packing';
import { ScaleChoice } from './scale-choice';
import { BenchTitle, BenchColumns, BenchFoot } from '../ui/bench/parts';

/** The packing table. Nothing open: the queue; a scanned tote, docket or order opens its order. */
export function BenchPage() {
  const { code } = useParams();
  const navigate = useNavigate();
  const me = useMe();
  const up = useLive();
  const [camera, setCamera] = useCameraOpen();
  useEffect(keepShell, []);
  const task = useTask('pack', code);
  const { site } = useSite();
  const book = useBook(site?.id);
  const to = (key: string, scanned?: string) => void navigate(`/bench/${encodeURIComponent(key)}`, { state: scanned ? { scanned } : null });
  const open = (scanned: string | null) => {
    if (scanned === null) return void navigate('/bench');
    const key = scanned.trim().toUpperCase();
    void orderFor(scanned).then(({ order: found }) => to(found ?? key, found === null ? undefined : scanned));
  };
  /** Goods open the order that wants them and nothing else, and are proved into it. */
  const orderFor = async (scanned: string): Promise<{ order: string | null }> => {
    const codes = isPaper(scanned) ? undefined : (book.data ?? (await book.refetch()).data);
    const meaning = codes && resolve(scanned, { ...codes, today: dayIn(site?.timeZone, new Date()) });
    if (meaning?.kind !== 'item') return { order: null };
    const path = { itemId: meaning.item.id };
    return ask(api.GET('/api/bench/single-line/{itemId}', { params: { path, ...at(site).params } })).catch(() => ({ order: null }));
  };
  const order = code === undefined ? undefined : task.data?.task;
  // A tote's code opens its order but does not stay its address: the tote is free again once the parcel is closed.
  if (order && code !== order.order) return <Navigate to={`/bench/${order.order}`} replace />;
  return (
    <main className="bench" data-face="bench">
      <header className="btop">
        <MarkName to="/" />
        <span className="ready">
          <Glyph name="scan" size={19} /> {up ? 'Scanner ready' : 'No network: scans are kept'}
          <KeptWord />
        </span>
        <span className="b-right">
          {order && (
            <span>
              leaves <b>{when(order.leavesAt ?? order.promisedAt)}</b>
              {untilWords(order.leavesAt ?? order.promisedAt)}
            </span>
          )}
          {!camera && (
            <button type="button" className="underline" onClick={() => setCamera(true)}>
              Camera
            </button>
          )}
          <Link to="/bench" className="underline">
            All totes
          </Link>
          <ScaleChoice />
          <SiteChoice />
          <b>{me.data?.name}</b>
        </span>
      </header>
      {camera && <CameraPanel onClose={() => setCamera(false)} />}
      {order ? (
        <TaskGate key={order.order} kind="pack" taskKey={order.order}>
          {(ready) => <Packing ready={ready} onOther={open} />}
        </TaskGate>
      ) : (
        <>
          {/* A scan that comes while an order is fetched is for that order. */}
          {(code === undefined || task.error) && <Listening onScan={open} />}
          <Waiting problem={code ? task.error : null} onOpen={open} />
        </>
      )}
    </main>
  );
}

function Listening({ onScan }: { onScan: (code: string) => void }) {
  useScanner(onScan);
  return null;
}

function Waiting({ problem, onOpen }: { problem: Error | null; onOpen: (code: string) => void }) {
  const detail = problem instanceof ProblemError ? problem.message : 'No network, and this order was not open here before';
  return (
    <>
      <div>{problem && <FeedbackBand feedback={{ band: 'unknown', title: 'Not here', detail }} />}</div>
      <BenchTitle>
        <h1>Scan a tote or a docket</h1>
      </BenchTitle>
      <BenchColumns>
        <BenchQueue onOpen={onOpen} />
      </BenchColumns>
      <BenchFoot />
    </>
  );
}
