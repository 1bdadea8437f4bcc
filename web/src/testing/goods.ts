/** Jars that come single, in trays and on pallets. */
export const JAR = {
  id: 1,
  sku: 'JAR',
  name: 'Jar',
  picture: 'jar',
  tracking: 'none' as const,
  home: null,
  packs: [
    { id: 3, name: 'pallet', plural: 'pallets', factor: 1536 },
    { id: 2, name: 'tray', plural: 'trays', factor: 48 },
    { id: 1, name: 'jar', plural: 'jars', factor: 1 },
  ],
};
