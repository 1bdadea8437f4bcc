import { randomUUID } from 'node:crypto';
import { type Caller, House } from './house.js';

describe('the command log', () => {
  let house: House;
  let buyer: Caller;
  const draft = (packs: number) => ({
    supplier: 'QUILLON',
    siteId: 1,
    note: '',
    lines: [{ sku: 'JAR-454-RD', factor: 48, packs, price: '20.16' }],
  });
  const countOrders = async () => ((await buyer.get('purchase-orders').expect(200)).body.rows as unknown[]).length;

  beforeAll(async () => {
    house = await House.open();
    buyer = await house.as('Piet');
  });
  afterAll(() => house.close());

  it('refuses a change without a key', async () => {
    const answer = await buyer.post('purchase-orders', draft(4), { 'idempotency-key': '' }).expect(400);
    expect(answer.body).toMatchObject({ code: 'idempotency-key' });
    expect(answer.headers['content-type']).toContain('application/problem+json');
    expect(await countOrders()).toBe(0);
  });

  it('gives the first answer again to the same key', async () => {
    const key = { 'idempotency-key': randomUUID() };
    const first = await buyer.post('purchase-orders', draft(4), key).expect(201);
    const again = await buyer.post('purchase-orders', draft(4), key).expect(201);
    expect(again.body).toEqual(first.body);
    expect(await countOrders()).toBe(1);
  });

  it('does not mind the order of members in the body', async () => {
    const key = { 'idempotency-key': randomUUID() };
    const first = await buyer.post('purchase-orders', draft(5), key).expect(201);
    const { lines, note, siteId, supplier } = draft(5);
    const again = await buyer.post('purchase-orders', { lines, supplier, note, siteId }, key).expect(201);
    expect(again.body).toEqual(first.body);
  });

  it('refuses another body under the same key', async () => {
    const key = { 'idempotency-key': randomUUID() };
    await buyer.post('purchase-orders', draft(6), key).expect(201);
    const before = await countOrders();
    const answer = await buyer.post('purchase-orders', draft(7), key).expect(422);
    expect(answer.body).toMatchObject({ code: 'key-reused' });
    expect(await countOrders()).toBe(before);
  });

  it('carries a key out once when it comes twelve times at once', async () => {
    const before = await countOrders();
    const key = { 'idempotency-key': randomUUID() };
    const answers = await Promise.all(Array.from({ length: 12 }, () => buyer.post('purchase-orders', draft(8), key)));
    expect(new Set(answers.map((a) => JSON.stringify(a.body))).size).toBe(1);
    expect(answers.every((a) => a.status === 201)).toBe(true);
    expect(await countOrders()).toBe(before + 1);
  });

  it('keeps nothing of a refused command, so that it can be sent again', async () => {
    const key = { 'idempotency-key': randomUUID() };
    await buyer.post('purchase-orders', { ...draft(9), supplier: 'NOBODY' }, key).expect(400);
    await buyer.post('purchase-orders', draft(9), key).expect(201);
  });

  it('keeps who, where, when and how with each act', async () => {
    const key = randomUUID();
    await buyer.post('purchase-orders', draft(3), { 'idempotency-key': key, 'device-time': '2026-05-14T09:30:00.000Z' }).expect(201);
    const rows: { device_at: Date; name: string; person: string }[] = await house.source.query(
      'SELECT c.device_at, c.name, p.name AS person FROM command c JOIN person p ON p.id = c.person_id WHERE c.id = ?',
      [key],
    );
    expect(rows[0]).toMatchObject({ name: 'purchase-order.add', person: 'Piet Sallow' });
    expect(rows[0]!.device_at.toISOString()).toBe('2026-05-14T09:30:00.000Z');
  });
});
