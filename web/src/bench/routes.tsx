import type { RouteObject } from 'react-router';
import { BenchPage } from './bench-page';

/** The packing table. */
export const routes: RouteObject = { path: '/bench/:code?', element: <BenchPage /> };
