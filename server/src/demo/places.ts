export interface DemoPlace {
  site: string;
  code: string;
  kind: string;
  pickable: boolean;
  walkOrder: number;
  x: number | null;
  y: number | null;
}

const AISLE_GAP_M = 4;
const BAY_M = 2;
const two = (n: number) => String(n).padStart(2, '0');

function aisles(site: string, letters: string, bays: number, levels: number, faces: number, firstX: number): DemoPlace[] {
  const places: DemoPlace[] = [];
  [...letters].forEach((letter, a) => {
    for (let bay = 1; bay <= bays; bay++) {
      for (let level = 1; level <= levels; level++) {
        const along = a % 2 === 0 ? bay : bays + 1 - bay;
        places.push({
          site,
          code: `${letter}-${two(bay)}-${level}`,
          kind: level <= faces ? 'pick-face' : 'reserve',
          pickable: level <= faces,
          walkOrder: 1000 + a * 1000 + along * 10 + level,
          x: firstX + a * AISLE_GAP_M,
          y: (bay - 0.5) * BAY_M,
        });
      }
    }
  });
  return places;
}

function single(site: string, code: string, kind: string, walkOrder: number, at: [number, number] | null = null): DemoPlace {
  return { site, code, kind, pickable: false, walkOrder, x: at?.[0] ?? null, y: at?.[1] ?? null };
}

/** Every place of the three sites: docks, shelves, tables, lanes, totes. */
export function demoPlaces(): DemoPlace[] {
  const totes = Array.from({ length: 40 }, (_, i) => single('MILL', `T-${two(i + 1)}`, 'tote', 9500 + i));
  return [
    single('MILL', 'DOCK-1', 'dock', 0, [0, 0]),
    single('MILL', 'INSPECT-1', 'inspection', 1, [0, 4]),
    ...aisles('MILL', 'ABCDEFGH', 12, 4, 2, 4),
    ...aisles('MILL', 'P', 10, 1, 0, 38),
    ...aisles('MILL', 'V', 6, 2, 2, 42),
    ...aisles('MILL', 'K', 6, 2, 2, 46),
    single('MILL', 'TABLE-1', 'packing-table', 9000, [0, 12]),
    single('MILL', 'TABLE-2', 'packing-table', 9001, [0, 15]),
    single('MILL', 'LANE-HARRIER', 'dispatch-lane', 9100, [0, 20]),
    single('MILL', 'LANE-NORTHWAY', 'dispatch-lane', 9101, [0, 22]),
    single('MILL', 'QUARANTINE-1', 'quarantine', 9200, [0, 24]),
    ...totes,
    single('QUAY', 'QUAY-DOCK', 'dock', 0, [0, 0]),
    ...aisles('QUAY', 'MN', 6, 3, 3, 3),
    single('QUAY', 'QUAY-COUNTER', 'counter', 9000, [0, 10]),
    single('QUAY', 'QUAY-TABLE', 'packing-table', 9001, [0, 12]),
    single('BARN', 'BARN-DOCK', 'dock', 0, [0, 0]),
    ...aisles('BARN', 'RS', 8, 2, 1, 5),
  ];
}
