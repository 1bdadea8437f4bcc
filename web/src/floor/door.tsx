import type { RouteObject } from 'react-router';
import { FloorSignIn } from './sign-in-page';

/** The way in with a badge. */
export const routes: RouteObject[] = [{ path: '/floor/sign-in', element: <FloorSignIn /> }];
