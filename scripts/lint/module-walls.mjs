import { relative, resolve, dirname, sep } from 'node:path';

/**
 * The server's modules from the ground up. A module may import those before it, each through its `index.ts` alone, and
 * nothing else of the server.
 */
export const FLOORS = [
  'platform',
  'paper',
  'schema',
  'activity',
  'settings',
  'identity',
  'letters',
  'exchange',
  'sites',
  'company',
  'catalogue',
  'stock',
  'allocation',
  'suppliers',
  'printing',
  'weighing',
  'ubl',
  'floor',
  'carriers',
  'purchasing',
  'returns',
  'inspection',
  'receiving',
  'books',
  'customers',
  'channels',
  'orders',
  'counting',
  'picking',
  'sorting',
  'putaway',
  'moving',
  'transfers',
  'building',
  'planning',
  'packing',
  'order-desk',
  'invoicing',
  'customer-returns',
  'connectors',
  'dispatch',
  'tracking',
  'tracing',
  'desk',
  'demo',
];

/**
 * What is wrong with an import between the server's modules, in words; null where it may be. Both paths are relative to
 * the server's source; files at its root put the house together and may use every module's face.
 */
export function wallFault(from, to) {
  const [room, other] = [from.split('/')[0], to.split('/')[0]];
  const inside = (path) => path.includes('/');
  if (!inside(to)) return inside(from) && room !== 'tools' ? 'What puts the house together is no part of a module' : null;
  if (room === other) return null;
  if (!FLOORS.includes(other)) return `${other} is not in the list of floors (scripts/lint/module-walls.mjs)`;
  // Threads have no use for a module's services: what it does in them has a face of its own.
  if (from === 'worker.ts' && to === `${other}/work.js`) return null;
  if (to !== `${other}/index.js`) return `Use what ${other}/index.ts shows; the rest of ${other} is its own`;
  if (!inside(from) || room === 'tools') return null;
  return FLOORS.indexOf(other) < FLOORS.indexOf(room) ? null : `${room} stands below ${other} and may not know it`;
}

/** Lints imports between modules of the server. The option names the folder of its source. */
export const moduleWalls = {
  meta: { type: 'problem', schema: [{ type: 'string' }], messages: { fault: '{{ fault }}' } },
  create(context) {
    const root = resolve(context.options[0]);
    const own = relative(root, context.filename).split(sep).join('/');
    const check = (node) => {
      const specifier = node.source?.value;
      if (typeof specifier !== 'string' || !specifier.startsWith('.')) return;
      const to = relative(root, resolve(dirname(context.filename), specifier))
        .split(sep)
        .join('/');
      if (to.startsWith('..')) return;
      const fault = wallFault(own, to);
      if (fault) context.report({ node, messageId: 'fault', data: { fault } });
    };
    return { ImportDeclaration: check, ImportExpression: check, ExportNamedDeclaration: check, ExportAllDeclaration: check };
  },
};
