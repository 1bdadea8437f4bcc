export interface DemoPlace {
  site: string;
  code: string;
  kind: string;
  pickable: boolean;
  walkOrder: number;
  x: number | null;
  y: number | null;
  /** The aisle it stands along, and how far from its first end, in metres. */
  aisle: string | null;
  along: number | null;
}
export interface DemoShape {
  site: string;
  kind: 'aisle' | 'walkway' | 'wall';
  label: string;
  from: [number, number];
  to: [number, number];
}

/** The floor begins this far from its walls. */
const EDGE_M = 2;
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
          x: EDGE_M + firstX + a * AISLE_GAP_M,
          y: EDGE_M + (bay - 0.5) * BAY_M,
          aisle: letter,
          along: (bay - 0.5) * BAY_M,
        });
      }
    }
  });
  return places;
}

function single(site: string, code: string, kind: string, walkOrder: number, at: [number, number] | null = null): DemoPlace {
  return {
    site,
    code,
    kind,
    pickable: false,
    walkOrder,
    x: at ? EDGE_M + at[0] : null,
    y: at ? EDGE_M + at[1] : null,
    aisle: null,
    along: null,
  };
}

/** The sorting wall at Millrace: three rows of four slots. */
export const DEMO_WALL = 'WALL-1';
export const DEMO_WALL_COLUMNS = 4;
export const demoSlots = (): string[] => Array.from({ length: 12 }, (_, i) => `${DEMO_WALL}-${two(i + 1)}`);

/** The cart that rounds are walked with, and the totes that stand on it. */
export const DEMO_CART = 'CART-3';
export const demoCartTotes = (): string[] => Array.from({ length: 4 }, (_, i) => `T-${41 + i}`);

/** Every place of the three sites: docks, shelves, tables, lanes, totes. */
export function demoPlaces(): DemoPlace[] {
  const totes = Array.from({ length: 40 }, (_, i) => single('MILL', `T-${two(i + 1)}`, 'tote', 9500 + i));
  return [
    single('MILL', 'DOCK-1', 'dock', 0, [0, 0]),
    single('MILL', 'DOCK-2', 'dock', 1, [0, 8]),
    single('MILL', 'INSPECT-1', 'inspection', 2, [0, 4]),
    ...aisles('MILL', 'ABCDEFGH', 12, 4, 2, 8),
    ...aisles('MILL', 'P', 10, 1, 0, 42),
    ...aisles('MILL', 'V', 6, 2, 2, 46),
    ...aisles('MILL', 'K', 6, 2, 2, 50),
    single('MILL', 'TABLE-1', 'packing-table', 9000, [0, 12]),
    single('MILL', 'TABLE-2', 'packing-table', 9001, [0, 15]),
    single('MILL', DEMO_WALL, 'sorting-wall', 9002, [0, 18]),
    single('MILL', 'LANE-HARRIER', 'dispatch-lane', 9100, [0, 20]),
    single('MILL', 'LANE-NORTHWAY', 'dispatch-lane', 9101, [0, 22]),
    single('MILL', 'QUARANTINE-1', 'quarantine', 9200, [0, 24]),
    single('MILL', 'CART-1', 'cart', 9300, [2, 2]),
    single('MILL', 'CART-2', 'cart', 9301, [2, 3]),
    single('MILL', DEMO_CART, 'cart', 9302, [2, 14]),
    ...totes,
    ...demoCartTotes().map((code, i) => single('MILL', code, 'tote', 9550 + i)),
    single('QUAY', 'QUAY-DOCK', 'dock', 0, [0, 0]),
    ...aisles('QUAY', 'MN', 6, 3, 3, 7),
    single('QUAY', 'QUAY-COUNTER', 'counter', 9000, [0, 10]),
    single('QUAY', 'QUAY-TABLE', 'packing-table', 9001, [0, 12]),
    single('QUAY', 'QUAY-LANE', 'dispatch-lane', 9100, [0, 14]),
    single('BARN', 'BARN-DOCK', 'dock', 0, [0, 0]),
    ...aisles('BARN', 'RS', 8, 2, 1, 5),
  ];
}

function aisleShapes(site: string, letters: string, bays: number, firstX: number): DemoShape[] {
  return [...letters].map((label, a) => {
    const x = EDGE_M + firstX + a * AISLE_GAP_M;
    return { site, kind: 'aisle', label, from: [x, EDGE_M], to: [x, EDGE_M + bays * BAY_M] };
  });
}
const walkway = (site: string, y: number, fromX: number, toX: number): DemoShape => ({
  site,
  kind: 'walkway',
  label: '',
  from: [EDGE_M + fromX, EDGE_M + y],
  to: [EDGE_M + toX, EDGE_M + y],
});

/** What is drawn on the plans: a front, a middle and a back cross aisle at Millrace; an irregular floor at Orchard Barn. */
export function demoShapes(): DemoShape[] {
  return [
    ...aisleShapes('MILL', 'ABCDEFGH', 12, 8),
    ...aisleShapes('MILL', 'P', 10, 42),
    ...aisleShapes('MILL', 'V', 6, 46),
    ...aisleShapes('MILL', 'K', 6, 50),
    walkway('MILL', 0, 0, 50),
    walkway('MILL', 12, 0, 50),
    walkway('MILL', 24, 0, 36),
    { site: 'MILL', kind: 'walkway', label: '', from: [EDGE_M, EDGE_M], to: [EDGE_M, EDGE_M + 24] },
    { site: 'MILL', kind: 'walkway', label: '', from: [EDGE_M + 36, EDGE_M + 24], to: [EDGE_M + 42, EDGE_M + 20] },
    { site: 'MILL', kind: 'wall', label: 'cage', from: [EDGE_M + 44, EDGE_M + 13.5], to: [EDGE_M + 48, EDGE_M + 13.5] },
    ...aisleShapes('QUAY', 'MN', 6, 7),
    walkway('QUAY', 0, 0, 12),
    walkway('QUAY', 12, 0, 12),
    { site: 'QUAY', kind: 'walkway', label: '', from: [EDGE_M, EDGE_M], to: [EDGE_M, EDGE_M + 12] },
    ...aisleShapes('BARN', 'RS', 8, 5),
    walkway('BARN', 0, 0, 9),
    { site: 'BARN', kind: 'walkway', label: '', from: [EDGE_M + 5, EDGE_M + 16], to: [EDGE_M + 9, EDGE_M + 16] },
    { site: 'BARN', kind: 'walkway', label: '', from: [EDGE_M + 9, EDGE_M + 16], to: [EDGE_M + 14, EDGE_M + 20] },
  ];
}

export const DEMO_FLOORS: Readonly<Record<string, [widthM: number, depthM: number]>> = { MILL: [56, 30], QUAY: [18, 18], BARN: [20, 26] };
