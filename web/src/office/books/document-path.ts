/** Where a document of the journal is read, by the letter of its series; null for what has no page of its own. */
export function documentPath(code: string): string | null {
  const [, series = ''] = /^([A-Z])-\d+/.exec(code) ?? [];
  const paths: Readonly<Record<string, string>> = {
    I: '/books/invoices',
    C: '/books/invoices',
    B: '/inbound/bills',
    P: '/inbound',
    A: '/inbound/arrivals',
    S: '/orders',
    Z: '/inbound/returns',
    G: '/orders/returns',
  };
  return Object.hasOwn(paths, series) ? `${paths[series] ?? ''}/${code}` : null;
}
