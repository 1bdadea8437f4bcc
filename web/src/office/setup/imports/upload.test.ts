import { ProblemError } from '../../../api/client';
import { inOrder, uploadImport } from './upload';

const ONCE = { 'idempotency-key': '5b0c1f2e-0000-4000-8000-000000000001' };
const OTHER = { 'idempotency-key': '5b0c1f2e-0000-4000-8000-000000000002' };
const file = (name: string) => new File(['SKU,Name\nA,b\n'], name);
const answers = (status: number, body: unknown) => {
  const calls: [string, RequestInit][] = [];
  globalThis.fetch = ((url: string, init: RequestInit) => {
    calls.push([url, init]);
    return Promise.resolve(new Response(typeof body === 'string' ? body : JSON.stringify(body), { status }));
  }) as typeof fetch;
  return calls;
};
const kept = globalThis.fetch;
afterEach(() => {
  globalThis.fetch = kept;
});

describe('files dropped together', () => {
  it('go in the order of their numbers, as people count', () => {
    expect(inOrder(['10 stock.csv', '2 items.csv', '1 places.csv'].map(file)).map((f) => f.name)).toEqual([
      '1 places.csv',
      '2 items.csv',
      '10 stock.csv',
    ]);
  });

  it('leave the list that they came in as it was', () => {
    const files = [file('b.csv'), file('a.csv')];
    inOrder(files);
    expect(files.map((f) => f.name)).toEqual(['b.csv', 'a.csv']);
  });
});

describe('sending a file', () => {
  it('sends it as it is, by its name, under the key it is given', async () => {
    const calls = answers(201, { id: 'run-1' });
    expect(await uploadImport(file('Größe & 100%.csv'), ONCE)).toBe('run-1');
    await uploadImport(file('b.csv'), OTHER);
    const [url, init] = calls[0]!;
    expect(url).toBe(`/api/imports?name=${encodeURIComponent('Größe & 100%.csv')}`);
    expect(init.body).toBeInstanceOf(File);
    const keys = calls.map(([, i]) => (i.headers as Record<string, string>)['idempotency-key']);
    expect(keys).toEqual([ONCE['idempotency-key'], OTHER['idempotency-key']]);
  });

  it('says which file was refused, and why', async () => {
    answers(400, { code: 'file', detail: 'This is not a text file. Save it as CSV or as XLSX' });
    const thrown = await uploadImport(file('photo.csv'), ONCE).catch((e: unknown) => e);
    expect(thrown).toBeInstanceOf(ProblemError);
    expect(thrown).toMatchObject({ status: 400, code: 'file', message: expect.stringContaining('photo.csv: This is not a text file') });
  });

  it('says what to do where the answer is no answer', async () => {
    answers(502, '<html>gateway</html>');
    await expect(uploadImport(file('a.csv'), ONCE)).rejects.toMatchObject({
      code: 'unknown',
      message: expect.stringContaining('Try again'),
    });
    answers(201, {});
    await expect(uploadImport(file('a.csv'), ONCE)).rejects.toBeInstanceOf(ProblemError);
  });
});
