import { readably } from './readably';

describe('a message to be mended', () => {
  it('has a field a line where it is JSON, and is left alone where it is not', () => {
    expect(readably('{"ref":"W-1","lines":[]}')).toBe('{\n  "ref": "W-1",\n  "lines": []\n}');
    expect(readably('{"ref":')).toBe('{"ref":');
    expect(readably('')).toBe('');
  });
});
