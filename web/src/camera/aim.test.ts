import { Aim, aimedAt, aimedPart } from './aim';

const code = (text: string, x = 0.5, y = 0.5) => ({ text, x, y });

describe('aiming', () => {
  it('takes the code nearest to the middle', () => {
    expect(aimedAt([code('edge', 0.1, 0.9), code('middle', 0.45, 0.52), code('near', 0.7, 0.5)])?.text).toBe('middle');
    expect(aimedAt([])).toBeUndefined();
  });

  it('reads a code once while it is in sight, however many pictures show it', () => {
    const aim = new Aim();
    expect([0, 60, 120, 900, 960].map((at) => aim.look([code('A')], at))).toEqual(['A', null, null, 'A', null]);
  });

  it('bridges single pictures that were blurred', () => {
    const aim = new Aim();
    expect(aim.look([code('A')], 0)).toBe('A');
    expect(aim.look([], 100)).toBeNull();
    expect(aim.look([code('A')], 200)).toBeNull();
    expect(aim.look([], 300)).toBeNull();
    expect(aim.look([code('A')], 800)).toBe('A');
  });

  it('reads the next code at once', () => {
    const aim = new Aim();
    expect(aim.look([code('A')], 0)).toBe('A');
    expect(aim.look([code('B')], 60)).toBe('B');
    expect(aim.look([code('A')], 120)).toBe('A');
  });

  it('does not hop to a neighbour while the code that was read is still in sight', () => {
    const aim = new Aim();
    expect(aim.look([code('A'), code('B', 0.8)], 0)).toBe('A');
    expect(aim.look([code('A', 0.2), code('B')], 60)).toBeNull();
    expect(aim.look([code('B')], 120)).toBe('B');
  });
});

describe('the part that is read', () => {
  it('lies within what is shown of the picture', () => {
    const frame = { width: 300, height: 240 };
    expect(aimedPart({ width: 720, height: 1280 }, frame)).toEqual({ left: 51, top: 462, width: 619, height: 357 });
    expect(aimedPart({ width: 1280, height: 720 }, frame)).toEqual({ left: 253, top: 137, width: 774, height: 446 });
  });

  it('is of the whole picture while no frame is known', () => {
    expect(aimedPart({ width: 100, height: 100 }, { width: 0, height: 0 })).toEqual({ left: 7, top: 19, width: 86, height: 62 });
  });
});
