import { flagRows } from './flags';

const rows = (...flags: [number, string][]) => flagRows(flags.map(([at, says]) => ({ at, says }))).map((f) => [f.says, f.row, f.leftward]);

describe('flags over the hours', () => {
  it('stand in one row where their words do not meet', () => {
    expect(rows([0.1, '10:20'], [0.5, '15:30 Harrier'])).toEqual([
      ['10:20', 0, false],
      ['15:30 Harrier', 0, false],
    ]);
  });

  it('stand above each other where they would', () => {
    expect(rows([0.5, '15:30 Harrier'], [0.5, '15:30 Northway'], [0.52, '15:45 Own van']).map((r) => r[1])).toEqual([0, 1, 2]);
  });

  it('are read to the left near the right end', () => {
    expect(rows([0.97, '16:30 Northway'])).toEqual([['16:30 Northway', 0, true]]);
  });

  it('keep out of the way of one that is read to the left', () => {
    expect(rows([0.85, '15:30'], [0.96, '16:30 Northway']).map((r) => r[1])).toEqual([0, 1]);
  });
});
