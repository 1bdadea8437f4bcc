/** Where a lot or number is traced. */
export const traceHref = (sku: string, lot: string) => `/shelves/trace?sku=${encodeURIComponent(sku)}&lot=${encodeURIComponent(lot)}`;
