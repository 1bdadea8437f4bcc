import { windowsOf } from './windows';

describe('the windows of a long list', () => {
  it('are the first one until its length is known', () => {
    expect(windowsOf(0, 40, undefined)).toEqual([0]);
  });
  it('reach one before and one behind what is seen', () => {
    expect(windowsOf(450, 490, 50_000)).toEqual([3, 4, 5]);
  });
  it('stop at both ends', () => {
    expect(windowsOf(0, 40, 150)).toEqual([0, 1]);
    expect(windowsOf(49_950, 49_999, 50_000)).toEqual([498, 499]);
    expect(windowsOf(0, 40, 0)).toEqual([0]);
  });
  it('cover every row that is seen, whatever is scrolled to', () => {
    for (let first = 0; first < 1000; first += 37) {
      const windows = windowsOf(first, first + 60, 1000);
      for (let i = first; i <= Math.min(999, first + 60); i++) expect(windows).toContain(Math.floor(i / 100));
    }
  });
});
