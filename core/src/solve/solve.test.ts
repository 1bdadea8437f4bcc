import { solve } from './index.js';

describe('the solver', () => {
  it('answers each case in its order', () => {
    const input = {
      cases: [
        { input: ']C10109506000134352', today: '2027-03-01' },
        { input: '', today: '2027-03-01' },
        { input: '01234565', today: '2027-03-01', context: 'upc-e', more: 1 },
      ],
      ignored: true,
    };
    const { output, code } = solve('gs1', JSON.stringify(input));
    expect(code).toBe(0);
    expect(output).toMatchObject({
      results: [
        { ok: true, gtin14: '09506000134352' },
        { ok: false, errorKind: 'empty' },
        { ok: true, gtin14: '00012345000065' },
      ],
    });
  });

  it.each([
    ['{', ''],
    ['[]', ''],
    ['{}', 'cases'],
    ['{"cases":[5]}', 'cases[0]'],
    ['{"cases":[{"today":"2027-03-01"}]}', 'cases[0].input'],
    ['{"cases":[{"input":"x"}]}', 'cases[0].today'],
    ['{"cases":[{"input":"x","today":"soon"}]}', 'cases[0].today'],
  ])('names the member at fault in %s', (text, path) => {
    const { output, code } = solve('gs1', text);
    expect(code).toBe(1);
    expect(output).toMatchObject({ error: { path, message: expect.any(String) as string } });
  });

  it.each(['constructor', 'nothing', ''])('knows no computation called "%s"', (name) => {
    expect(solve(name, '{}').code).toBe(1);
  });
});
