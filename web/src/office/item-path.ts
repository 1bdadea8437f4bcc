/** The address of an item's sheet: a SKU may hold spaces, slashes and number signs. */
export const itemPath = (sku: string): string => `/shelves/items/${encodeURIComponent(sku)}`;
