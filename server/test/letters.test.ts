import sharp from 'sharp';
import { Mailer } from '../src/platform/index.js';
import { type Caller, House } from './house.js';

interface Sent {
  to: string;
  subject: string;
  text: string;
  html?: string;
  inline?: { cid: string }[];
}

/** What customers are written is in the company's words, and under its mark. */
describe('letters to customers', () => {
  let house: House;
  let maren: Caller;
  const sent: Sent[] = [];

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    house.app.get(Mailer).send = (mail) => Promise.resolve(void sent.push(mail));
    await house.stock('JAR-454-RD', 'A-01-1', 50);
  });
  afterAll(() => house.close());

  const letter = async (name: string) =>
    (await maren.get(`letters/${name}`).expect(200)).body as { subject: string; body: string; version: number; isOwn: boolean };
  const write = (name: string, words: object, version: number) => maren.put(`letters/${name}`, words, { 'if-match': `"${version}"` });
  /** An order that is cancelled, and its customer told. */
  async function cancelled(why: string, more: object = {}): Promise<Sent> {
    const code = await house.order([['JAR-454-RD', 1]], { email: 'someone@mail.example', ...more });
    const { version } = (await maren.get(`orders/${code}`)).body as { version: number };
    await maren.post(`orders/${code}/cancel`, { why, tell: true }, { 'if-match': `"${version}"` }).expect(200);
    await house.deliver();
    return sent.at(-1)!;
  }

  it('have the words that the company wrote, and its first ones again when it wants them', async () => {
    const before = await letter('cancelled');
    expect(before).toMatchObject({ isOwn: false, version: 0 });
    await write('cancelled', { subject: 'About {order}', body: 'Good day {customer},\n\n{why}\n\nYours, {company}' }, 0).expect(204);
    expect((await write('cancelled', { subject: 'x', body: 'y' }, 0)).status).toBe(412);
    const mail = await cancelled('Sold out');
    expect(mail.subject).toMatch(/^About T-/);
    expect(mail.text).toContain('\n\nSold out\n\nYours, ');
    await maren.delete('letters/cancelled').expect(204);
    expect(await letter('cancelled')).toEqual(before);
  });

  it('name nothing that is not there, whatever is typed', async () => {
    for (const body of ['Dear {name}', 'Dear {customer', '{}', '', 'x'.repeat(4_001)]) expect((await write('late', { subject: 'Late', body }, 0)).status).toBe(400); // prettier-ignore
    expect((await write('late', { subject: '{expected', body: 'x' }, 0).expect(400)).body).toMatchObject({
      fields: { subject: expect.any(String) },
    });
    expect((await write('unheard-of', { subject: 'a', body: 'b' }, 0)).status).toBe(404);
    expect((await maren.get('letters/constructor')).status).toBe(404);
    expect((await (await house.as('Ines')).get('letters')).status).toBe(403);
  });

  it('let no sign of a customer’s become a page, a line or a letter of its own', async () => {
    const mail = await cancelled('<b>{company}</b>\nBcc: all@mail.example', { customer: '<script>alert(1)</script> {why}' });
    expect(mail.html).toContain('&lt;script&gt;alert(1)&lt;/script&gt; {why}');
    expect(mail.html).not.toContain('<script>');
    expect(mail.text).toContain('<b>{company}</b>');
    expect(mail.subject).not.toContain('\n');
  });

  it('stand under the mark, which is a picture and nothing else', async () => {
    const put = (bytes: Buffer) =>
      house.http
        .put('/api/mark')
        .set('cookie', maren.cookie)
        .set('content-type', 'application/octet-stream')
        .set('idempotency-key', crypto.randomUUID())
        .send(bytes);
    for (const bad of ['', '<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>', '%PDF-1.3', 'GIF89a'])
      expect((await put(Buffer.from(bad))).status).toBe(400);
    // The one that it has is the one that it had.
    expect((await sharp((await maren.get('mark').expect(200)).body as Buffer).metadata()).width).toBe(84);
    const wide = await sharp({ create: { width: 900, height: 300, channels: 4, background: '#141e32' } })
      .jpeg()
      .toBuffer();
    expect((await put(wide)).status).toBe(204);
    const kept = await sharp((await maren.get('mark').expect(200)).body as Buffer).metadata();
    expect([kept.format, kept.width, kept.height]).toEqual(['png', 270, 90]);
    const mail = await cancelled('No more');
    expect(mail.inline).toMatchObject([{ cid: 'mark' }]);
    expect(mail.html).toContain('<img src="cid:mark"');
    await maren.delete('mark').expect(204);
    // None is no fault: a page asks for it to see whether there is one.
    expect((await maren.get('mark')).status).toBe(204);
    expect((await cancelled('No more')).inline).toBeUndefined();
  });
});
