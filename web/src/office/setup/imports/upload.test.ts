import { ProblemError } from '../../../api/client';
import { inOrder, uploadImport } from './upload';

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
  it('sends it as it is, by its name, under a key of its own', async () => {
    const calls = answers(201, { id: 'run-1' });
    expect(await uploadImport(file('Größe & 100%.csv'))).toBe('run-1');
    await uploadImport(file('b.csv'));
    const [url, init] = calls[0]!;
    expect(url).toBe(`/api/imports?name=${encodeURIComponent('Größe & 100%.csv')}`);
    expect(init.body).toBeInstanceOf(File);
    const keys = calls.map(([, i]) => (i.headers as Record<string, string>)['idempotency-key']);
    expect(keys[0]).toMatch(/^[0-9a-f-]{36}$/);
    expect(keys[1]).not.toBe(keys[0]);
  });

  it('says which file was refused, and why', async () => {
    answers(400, { code: 'file', detail: 'This is not a text file. Save it as CSV or as XLSX' });
    const thrown = await uploadImport(file('photo.csv')).catch((e: unknown) => e);
    expect(thrown).toBeInstanceOf(ProblemError);
    expect(thrown).toMatchObject({ status: 400, code: 'file', message: expect.stringContaining('photo.csv: This is not a text file') });
  });

  it('says what to do where the answer is no answer', async () => {
    answers(502, '<html>gateway</html>');
    await expect(uploadImport(file('a.csv'))).rejects.toMatchObject({ code: 'unknown', message: expect.stringContaining('Try again') });
    answers(201, {});
    await expect(uploadImport(file('a.csv'))).rejects.toBeInstanceOf(ProblemError);
  });
});
