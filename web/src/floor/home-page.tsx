import { useQuery } from '@tanstack/react-query';
import { key } from '../api/keys';
import { useCallback } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, ask, at, type Dto } from '../api/client';
import { useMe, useSite, useTape } from '../api/queries';
import { kept } from '../flow/kept';
import { readTask, useTask } from '../flow/tasks';
import { plural, when } from '../ui/format';
import { useUndo } from '../ui/tape';
import { DeviceSwitches, SiteChoice } from './device-switches';
import { lastActOf } from '../flow/last-act';
import { FloorTape } from './floor-tape';
import { FloorKeys } from './keys';
import { isToSort, useRounds } from './rounds';
import { useOpenTransfers } from './transfers/open-transfers';
import { TRANSFER_PAPER, transferPath } from './transfers/transfer-path';
import { useOpenCounts } from './tally/open-counts';
import { usePageScan } from './scan-context';
import { PhoneHead, Ask, PhoneList, Say, PhoneItem } from '../ui/phone/parts';
import { Glyph } from '../ui/glyph';

/** Urgent orders that wait for a picker, before every task. */
function UrgentItems({ orders }: { orders: Dto['UrgentDto'][] }) {
  return orders.map((o, i) => (
    <PhoneItem key={o.code} next={i === 0}>
      <Link to={`/floor/pick/${o.round}`}>
        <b>Urgent: {o.customer}</b>
        <Glyph name="go" size={22} />
        <span>
          <span className="code">{o.round}</span>, by {when(o.promisedAt)}
        </span>
      </Link>
    </PhoneItem>
  ));
}

const REFILLS_AGAIN_MS = 60_000;

/** How much is to be brought from the reserve, and what waits for it. */
function refillNote(task: Dto['RefillTaskDto'] | undefined): string {
  const count = (task?.goods.length ?? 0) + (task?.more ?? 0);
  const soonest = task?.goods.find((g) => g.leavesAt !== null)?.leavesAt;
  return `${plural(count, 'pick face', 'pick faces')} to fill${soonest ? `, the first for ${when(soonest)}` : ''}`;
}

/** Bins of counts that are open, and bins that somebody has reported. */
function countNote(open: readonly Dto['OpenTallyDto'][], reported: number): string {
  const bins = open.reduce((n, c) => n + c.bins, 0);
  const words = `${plural(reported, 'bin', 'bins')} that somebody has reported`;
  if (bins === 0) return words;
  return `${plural(bins, 'bin', 'bins')} to count${reported > 0 ? `, ${words}` : ''}`;
}

/** What there is to do for this person. A scanned paper opens its task at once. */
export function FloorHome() {
  const me = useMe();
  const navigate = useNavigate();
  const { site } = useSite();
  const line = useQuery({
    queryKey: key('line', site?.id),
    queryFn: () => kept(`line-${site?.id ?? ''}`, () => ask(api.GET('/api/line', at(site)))),
    enabled: site !== undefined,
  });
  const siteId = site?.id;
  const returns = useQuery({
    queryKey: key('customer-returns', 'floor', siteId),
    queryFn: () => ask(api.GET('/api/customer-returns', { params: { query: { state: 'open', site: String(siteId ?? '') } } })),
    enabled: siteId !== undefined && me.data?.rights.includes('receive') === true,
  });
  const inspect = useTask('inspect', me.data?.rights.includes('inspect') ? siteId : undefined);
  // Worked out of all that waits: too dear to be read again with each scan of everybody, for a line on the way to it.
  const refill = useQuery({
    queryKey: key('refill-due', siteId),
    queryFn: () => readTask('refill', siteId ?? 0),
    enabled: siteId !== undefined && me.data?.rights.includes('store') === true,
    refetchInterval: REFILLS_AGAIN_MS,
  });
  const transfers = useOpenTransfers(me.data?.rights.some((r) => r === 'store' || r === 'receive') ? siteId : undefined);
  const openTransfers = transfers.data;
  const tallies = useOpenCounts(me.data?.rights.includes('count') ? siteId : undefined);
  const counts = useTask('count', me.data?.rights.includes('count') ? siteId : undefined);
  const rounds = useRounds(me.data?.rights.includes('pick') === true);
  const toSort = rounds.data?.rows.filter(isToSort).length ?? 0;
  const mine = useTape(4, { mine: true });
  const undo = useUndo();
  const entries = mine.data?.entries ?? [];
  const last = lastActOf([], entries);
  const rights = me.data?.rights ?? [];
  const count = (stage: string) => line.data?.stages.find((s) => s.stage === stage)?.count ?? 0;
  const tasks = [
    {
      right: 'receive',
      to: '/floor/receive',
      says: 'Receive',
      note: `${plural(count('inbound'), 'order', 'orders')} due today`,
      n: count('inbound'),
    },
    {
      right: 'receive',
      to: '/floor/returns',
      says: 'Take back',
      note: `${plural(returns.data?.total ?? 0, 'customer sends', 'customers send')} something back`,
      n: returns.data?.total ?? 0,
    },
    {
      right: 'inspect',
      to: '/floor/inspect',
      says: 'Inspect',
      note: `${plural(inspect.data?.task.goods.length ?? 0, 'lot waits', 'lots wait')} to be looked at`,
      n: inspect.data?.task.goods.length ?? 0,
    },
    {
      right: 'store',
      to: '/floor/store',
      says: 'Put away',
      note: `${plural(count('shelves'), 'lot', 'lots')} of goods to shelve`,
      n: count('shelves'),
    },
    {
      right: 'store',
      to: '/floor/refill',
      says: 'Refill',
      note: refillNote(refill.data?.task),
      n: refill.data?.task.goods.length ?? 0,
    },
    {
      right: 'store',
      to: '/floor/transfers',
      says: 'Transfers',
      note: `${plural(transfers.data?.length ?? 0, 'transfer', 'transfers')} to gather or to take in`,
      n: transfers.data?.length ?? 0,
    },
    {
      right: 'store',
      to: '/floor/move',
      says: 'Move',
      note: 'anything to anywhere, used up, or held',
      n: 0,
    },
    {
      right: 'count',
      to: '/floor/count',
      says: 'Count',
      note: countNote(tallies.data ?? [], counts.data?.task.spots.length ?? 0),
      n: (tallies.data?.length ?? 0) + (counts.data?.task.spots.filter((s) => !s.isOwn).length ?? 0),
    },
    {
      right: 'pick',
      to: '/floor/pick',
      says: 'Pick',
      note: `${plural(count('picking'), 'round', 'rounds')} open`,
      n: count('picking'),
    },
    {
      right: 'pick',
      to: '/floor/sort',
      says: 'Sort',
      note: `${plural(toSort, 'round stands', 'rounds stand')} at the wall`,
      n: toSort,
    },
    {
      right: 'dispatch',
      to: '/floor/load',
      says: 'Load',
      note: `${plural(count('dispatch'), 'parcel waits', 'parcels wait')} for a van`,
      n: count('dispatch'),
    },
  ].filter((t) => rights.includes(t.right) && ((t.says !== 'Sort' && t.says !== 'Transfers') || t.n > 0));
  const urgent = line.data?.urgent.filter((o) => o.round !== null) ?? [];
  const mayPick = rights.includes('pick');
  const next = mayPick && urgent.length > 0 ? undefined : tasks.find((t) => t.n > 0);
  const onScan = useCallback(
    (code: string) => {
      const paper = code.trim().toUpperCase();
      if (/^[PA]-\d+$/.test(paper)) void navigate(`/floor/receive/${paper}`);
      else if (/^G-\d+$/.test(paper)) void navigate(`/floor/returns/${paper}`);
      else if (/^Q-\d+$/.test(paper)) void navigate('/floor/inspect');
      else if (TRANSFER_PAPER.test(paper)) void navigate(transferPath(openTransfers, paper));
      else if (/^K-\d+$/.test(paper)) void navigate(`/floor/gather/${paper}`);
      else if (/^N-\d+$/.test(paper)) void navigate(`/floor/tally/${paper}`);
      else if (/^R-\d+$/.test(paper)) void navigate(`/floor/pick/${paper}`);
      else void navigate(`/floor/look?code=${encodeURIComponent(code.trim())}`);
    },
    [navigate, openTransfers],
  );
  usePageScan(onScan);
  return (
    <>
      <PhoneHead>
        <SiteChoice />
        <span />
        <Link to="/" className="text-[15px] underline grid place-items-center min-h-[44px] min-w-[44px] -my-3">
          Office
        </Link>
      </PhoneHead>
      <Ask>Scan a paper, or choose</Ask>
      <PhoneList className="mt-3">
        {mayPick && <UrgentItems orders={urgent} />}
        {tasks.map((t) => (
          <PhoneItem key={t.to} next={t === next}>
            <Link to={t.to}>
              <b>{t.says}</b>
              <Glyph name="go" size={22} />
              <span>{t.note}</span>
            </Link>
          </PhoneItem>
        ))}
        {rights.includes('pack') && (
          <li>
            <Link to="/bench">
              <b>Packing table</b>
              <Glyph name="go" size={22} />
              <span>{plural(count('packing'), 'tote', 'totes')} to pack</span>
            </Link>
          </li>
        )}
        <li>
          <Link to="/floor/look">
            <b>Look up</b>
            <Glyph name="go" size={22} />
            <span>what anything is, and where</span>
          </Link>
        </li>
      </PhoneList>
      {me.data && tasks.length === 0 && !rights.includes('pack') && (
        <Say className="text-[18px]">None of your duties are done on the phone. Ask whoever sets up people.</Say>
      )}
      <DeviceSwitches />
      <div style={{ marginTop: 'auto' }} />
      <FloorTape
        entries={entries}
        last={last}
        onUndo={() => {
          if (last?.activityId) undo.mutate(last.activityId);
        }}
      />
      <FloorKeys siteId={site?.id} />
    </>
  );
}
