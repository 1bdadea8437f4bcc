import type { Face } from './checks.js';

/** A screen in one of its states. */
export interface State {
  /** The route it belongs to, as the router writes it. */
  route: string;
  /** Where it is. */
  at: string;
  face: Face;
}

/** What is there to be opened: a code for each parameter of each route. */
export type Known = Readonly<Record<string, string>>;

const faceOf = (route: string): Face => (route.startsWith('/floor') ? 'floor' : 'office');
const PUBLIC = ['/sign-in', '/first-run', '/enrol', '/welcome', '/forgotten', '/floor/sign-in'];

/** Every screen that can be opened in a house: those with a parameter where there is a record for it. */
export function statesOf(routes: readonly string[], known: Known): State[] {
  return routes
    .filter((route) => !PUBLIC.includes(route))
    .flatMap((route): State[] => {
      const face = faceOf(route);
      if (!route.includes(':')) return [{ route, at: route, face }];
      if (route.endsWith('?')) return [{ route, at: route.replace(/\/:\w+\?$/, ''), face }, ...opened(route, known, face)];
      return opened(route, known, face);
    });
}

function opened(route: string, known: Known, face: Face): State[] {
  const code = known[route.replace(/\/edit$/, '')];
  const open = code === undefined ? [] : [{ route, at: fill(route, code), face }];
  return route.endsWith('/edit') ? open : [...open, { route, at: fill(route, 'NOT-THERE'), face }];
}

const fill = (route: string, code: string) => route.replace(/:\w+\??/, encodeURIComponent(code));

export const publicStates = (routes: readonly string[]): State[] =>
  routes.filter((route) => PUBLIC.includes(route)).map((route) => ({ route, at: route, face: 'office' }));

/** Answers that belong to a screen: that a record is not known, or that nobody is signed in. */
export function allowedAt(path: string): readonly number[] {
  if (PUBLIC.includes(path)) return [400, 401, 403];
  return path.includes('NOT-THERE') ? [400, 404] : [];
}
