import type { RouteObject } from 'react-router';
import { FloorShell } from './floor-shell';
import { FloorHome } from './home-page';
import { PickList } from './pick/pick-list';
import { PickPage } from './pick/pick-page';
import { DuePage } from './receive/due-page';
import { QuestionsPage } from './questions-page';
import { StorePage } from './store-page';

/** The floor: what is done with a phone in the hand. */
export const routes: RouteObject = {
  path: 'floor',
  element: <FloorShell />,
  children: [
    { index: true, element: <FloorHome /> },
    { path: 'receive', element: <DuePage /> },
    { path: 'receive/:code', lazy: async () => ({ Component: (await import('./receive/receive-page')).ReceivePage }) },
    { path: 'returns', lazy: async () => ({ Component: (await import('./back/returns-list')).ReturnsList }) },
    { path: 'returns/:code', lazy: async () => ({ Component: (await import('./back/come-back-page')).ComeBackPage }) },
    { path: 'inspect', lazy: async () => ({ Component: (await import('./inspect/inspect-page')).InspectPage }) },
    { path: 'store', element: <StorePage /> },
    { path: 'transfers', lazy: async () => ({ Component: (await import('./transfers/transfer-list')).TransferList }) },
    { path: 'gather/:code', lazy: async () => ({ Component: (await import('./transfers/gather-page')).GatherPage }) },
    { path: 'take-in/:code', lazy: async () => ({ Component: (await import('./transfers/take-in-page')).TakeInPage }) },
    { path: 'move', lazy: async () => ({ Component: (await import('./move/from-page')).FromPage }) },
    { path: 'move/:code', lazy: async () => ({ Component: (await import('./move/move-page')).MovePage }) },
    { path: 'refill', lazy: async () => ({ Component: (await import('./refill-page')).RefillPage }) },
    { path: 'count', lazy: async () => ({ Component: (await import('./tally/count-list')).CountList }) },
    { path: 'count/reported', lazy: async () => ({ Component: (await import('./count-page')).CountPage }) },
    { path: 'tally/:code', lazy: async () => ({ Component: (await import('./tally/tally-page')).TallyPage }) },
    { path: 'look', lazy: async () => ({ Component: (await import('./look-page')).LookPage }) },
    { path: 'scanner', lazy: async () => ({ Component: (await import('./scanner-page')).FloorScannerPage }) },
    { path: 'questions', element: <QuestionsPage /> },
    { path: 'pick', element: <PickList /> },
    { path: 'pick/:code', element: <PickPage /> },
    { path: 'sort', lazy: async () => ({ Component: (await import('./sort/sort-list')).SortList }) },
    // Kept on the device like all of the shell, but not in the way of the first page.
    { path: 'pack/:code', lazy: async () => ({ Component: (await import('./pack/pack-page')).PackPage }) },
    { path: 'load', lazy: async () => ({ Component: (await import('./load/load-list')).LoadList }) },
    { path: 'load/:key', lazy: async () => ({ Component: (await import('./load/load-page')).LoadPage }) },
    { path: 'sort/:code', lazy: async () => ({ Component: (await import('./sort/sort-page')).SortPage }) },
  ],
};
