import { type AddressInfo, createServer, type Server } from 'node:net';
import { type Caller, House } from './house.js';

describe('scales', () => {
  let house: House;
  let scale: Server;
  let says = '';
  let maren: Caller;
  let address = '';

  beforeAll(async () => {
    house = await House.open();
    maren = await house.as('Maren');
    scale = createServer((socket) => socket.on('data', () => socket.end(says)).on('error', () => undefined));
    await new Promise<void>((done) => scale.listen(0, '127.0.0.1', done));
    address = `127.0.0.1:${(scale.address() as AddressInfo).port}`;
  });
  afterAll(async () => {
    scale.close();
    await house.close();
  });

  const add = (more: object = {}) => maren.post('scales', { name: 'Table 1', siteId: 1, address, ...more });

  it('are set up, changed, and taken away', async () => {
    const { id } = (await add().expect(201)).body as { id: number };
    expect((await add().expect(400)).body).toMatchObject({ fields: { name: 'There is a scale of that name at this site' } });
    await add({ name: 'Bad', address: 'nowhere' }).expect(400);
    await maren.put(`scales/${id}`, { name: 'Table 2', siteId: 1, address }, { 'if-match': '"1"' }).expect(200);
    await maren.put(`scales/${id}`, { name: 'Table 3', siteId: 1, address }, { 'if-match': '"1"' }).expect(412);
    expect((await maren.get('scales')).body).toMatchObject([{ name: 'Table 2', site: 'Millrace' }]);
    await (await house.as('Dilys')).post('scales', { name: 'Mine', siteId: 1, address }).expect(403);
    await maren.delete(`scales/${id}`).expect(204);
    expect((await maren.get('scales')).body).toEqual([]);
  });

  it('say what lies on them, and whether it has settled', async () => {
    const { id } = (await add().expect(201)).body as { id: number };
    const dilys = await house.as('Dilys');
    says = '2345 g steady\n';
    expect((await dilys.get(`scales/${id}/reading`).expect(200)).body).toEqual({ grams: 2345, isSteady: true });
    says = '  12 g moving\r\n';
    expect((await dilys.get(`scales/${id}/reading`).expect(200)).body).toEqual({ grams: 12, isSteady: false });
    await (await house.as('Beth')).get(`scales/${id}/reading`).expect(403);
  });

  it.each([
    ['nonsense', 'something that is no weight'],
    ['', 'hung up without an answer'],
    [`${'9'.repeat(500)} g steady\n`, 'something that is no weight'],
  ])('that answer %j are not believed', async (line, why) => {
    const { id } = (await add({ name: `Odd ${why}${line.length}` }).expect(201)).body as { id: number };
    says = line === 'nonsense' ? 'E04\n' : line;
    const answer = await (await house.as('Dilys')).get(`scales/${id}/reading`).expect(503);
    expect((answer.body as { detail: string }).detail).toContain(why);
  });

  it('that are away say so', async () => {
    const { id } = (await add({ name: 'Away', address: '127.0.0.1:1' }).expect(201)).body as { id: number };
    const answer = await (await house.as('Dilys')).get(`scales/${id}/reading`).expect(503);
    expect((answer.body as { detail: string }).detail).toContain('or type the weight');
  });
});
