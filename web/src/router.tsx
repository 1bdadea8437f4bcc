import { createBrowserRouter, type RouteObject } from 'react-router';
import { MustSignIn } from './door/must-sign-in';
import { NothingHere } from './ui/nothing-here';

/** Development only: every component in every state. */
const kit: RouteObject[] = import.meta.env.DEV
  ? [{ path: '/kit', lazy: async () => ({ Component: (await import('./kit/kit-page')).KitPage }) }]
  : [];

const DOOR = /^\/(sign-in|first-run|enrol|welcome|forgotten)/;
/** Which faces have their routes already. */
const read = new Set<string>();

/** Each face is a bundle of its own, read when somebody first goes there. */
async function readFace(path: string, patch: (under: string | null, routes: RouteObject[]) => void): Promise<void> {
  const face = DOOR.test(path)
    ? 'door'
    : path === '/floor/sign-in'
      ? 'floor-door'
      : path.startsWith('/floor')
        ? 'floor'
        : path.startsWith('/bench')
          ? 'bench'
          : 'office';
  if (read.has(face)) return;
  switch (face) {
    case 'door':
      patch(null, (await import('./door/routes')).routes);
      break;
    case 'floor-door':
      patch(null, (await import('./floor/door')).routes);
      break;
    case 'floor':
      patch('house', [(await import('./floor/routes')).routes]);
      break;
    case 'bench':
      patch('house', [(await import('./bench/routes')).routes]);
      break;
    default:
      patch('house', [(await import('./office/routes')).routes]);
  }
  read.add(face);
}

export const router = createBrowserRouter(
  [...kit, { id: 'house', element: <MustSignIn />, children: [] }, { path: '*', element: <NothingHere /> }],
  { patchRoutesOnNavigation: ({ path, patch }) => readFace(path, patch) },
);
