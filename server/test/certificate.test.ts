import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { get } from 'node:https';
import { createServer } from 'node:https';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { servingCertificate } from '../src/platform/certificate.js';
import { phoneUrl } from '../src/platform/phone-url.js';

describe('the house’s own certificate', () => {
  const dir = mkdtempSync(join(tmpdir(), 'tls-'));
  afterAll(() => rmSync(dir, { recursive: true, force: true }));
  const now = new Date('2027-03-01T10:00:00Z');
  const days = (n: number) => new Date(now.getTime() + n * 86_400_000);

  it('is made once, with an authority that stays', async () => {
    const first = await servingCertificate(dir, ['127.0.0.1', '10.0.0.5'], now);
    const again = await servingCertificate(dir, ['127.0.0.1', '10.0.0.5'], days(30));
    expect(again).toEqual(first);
    expect(statSync(join(dir, 'authority.key')).mode & 0o077).toBe(0);
    expect(new X509Certificate(first.authority).ca).toBe(true);
  });

  it('is made anew for another address or before it ends, under the same authority', async () => {
    const authority = readFileSync(join(dir, 'authority.crt'), 'utf8');
    const moved = await servingCertificate(dir, ['127.0.0.1', '10.0.0.9'], now);
    expect(new X509Certificate(moved.cert).checkIP('10.0.0.9')).toBe('10.0.0.9');
    const later = await servingCertificate(dir, ['127.0.0.1', '10.0.0.9'], days(380));
    expect(later.cert).not.toBe(moved.cert);
    expect([moved.authority, later.authority]).toEqual([authority, authority]);
  });

  it('is believed by whoever trusts the authority, and by nobody else', async () => {
    const { key, cert, authority } = await servingCertificate(join(dir, 'now'), ['127.0.0.1'], new Date());
    const server = createServer({ key, cert }, (_, answer) => answer.end('here'));
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const { port } = server.address() as { port: number };
    const ask = (ca?: string) =>
      new Promise<string>((done) =>
        get({ host: '127.0.0.1', port, ...(ca ? { ca } : {}) }, (r) => r.on('data', (d: Buffer) => done(d.toString()))).on('error', (e) =>
          done(e.message),
        ),
      );
    expect(await ask(authority)).toBe('here');
    expect(await ask()).toMatch(/certificate/);
    server.close();
  });

  it('tells phones where to go', () => {
    const here = { VECTRUM_HOST: '127.0.0.1', VECTRUM_HTTPS_PORT: 4643 };
    expect(phoneUrl(here)).toBe('https://127.0.0.1:4643');
    expect(phoneUrl({ ...here, VECTRUM_URL: 'https://stores.example.org/' })).toBe('https://stores.example.org');
    expect(phoneUrl({ ...here, VECTRUM_HTTPS_PORT: 0, VECTRUM_URL: 'http://stores.example.org' })).toBeNull();
  });
});
