import type { RouteObject } from 'react-router';
import { EnrolPage } from './enrol-page';
import { ForgottenPage } from './forgotten-page';
import { WelcomePage } from './welcome-page';
import { FirstRunPage } from './first-run-page';
import { SignInPage } from './sign-in-page';

/** The way in: signing in, founding a house, joining a device to it. */
export const routes: RouteObject[] = [
  { path: '/sign-in', element: <SignInPage /> },
  { path: '/first-run', element: <FirstRunPage /> },
  { path: '/enrol', element: <EnrolPage /> },
  { path: '/welcome', element: <WelcomePage /> },
  { path: '/forgotten', element: <ForgottenPage /> },
];
