import type { Answer } from './platform/work.js';

/** What each module does in threads, read when it is first asked for. */
const FACES: Readonly<Record<string, () => Promise<Record<string, unknown>>>> = {
  carriers: () => import('./carriers/work.js'),
  'customer-returns': () => import('./customer-returns/work.js'),
  dispatch: () => import('./dispatch/work.js'),
  exchange: () => import('./exchange/work.js'),
  invoicing: () => import('./invoicing/work.js'),
  orders: () => import('./orders/work.js'),
  packing: () => import('./packing/work.js'),
  picking: () => import('./picking/work.js'),
  planning: () => import('./planning/work.js'),
  printing: () => import('./printing/work.js'),
  purchasing: () => import('./purchasing/work.js'),
  putaway: () => import('./putaway/work.js'),
  returns: () => import('./returns/work.js'),
  transfers: () => import('./transfers/work.js'),
  ubl: () => import('./ubl/index.js'),
};

/** A thread: does what it is told, and answers with the value or with why there is none. */
export default async function work({ name, args }: { name: string; args: unknown[] }): Promise<Answer> {
  const [module = '', key = ''] = name.split('/');
  const of = (await FACES[module]?.())?.[key];
  if (typeof of !== 'function') throw new Error(`${name} is not done in threads. Show it in ${module}/work.ts and name it in worker.ts`);
  try {
    return { value: await (of as (...args: unknown[]) => unknown)(...args) };
  } catch (thrown) {
    const { status, code, detail } = thrown as { status?: unknown; code?: unknown; detail?: unknown };
    if (typeof status === 'number') return { problem: { status, code: String(code), detail: String(detail) } };
    if (thrown instanceof Error) return { fault: thrown.constructor.name, message: thrown.message };
    throw thrown;
  }
}
