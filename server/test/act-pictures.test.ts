import sharp from 'sharp';
import { type Caller, House } from './house.js';

/** Pictures beside the reason for which goods were used up, set apart, or their number put right. */
describe('a picture of an act', () => {
  let house: House;
  let maren: Caller;
  let ines: Caller;
  let joss: Caller;
  let png: Buffer;
  beforeAll(async () => {
    house = await House.open();
    [maren, ines, joss] = [await house.as('Maren'), await house.as('Ines'), await house.as('Joss')];
    png = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#888' } })
      .png()
      .toBuffer();
    await house.stock('TOOL-JH', 'A-02-1', 12);
  });
  afterAll(() => house.close());

  interface Tape {
    entries: { id: number; picture: string | null }[];
  }
  const tapeOf = async (who: Caller, id: number) => ((await who.get('tape?limit=20')).body as Tape).entries.find((e) => e.id === id);
  const used = async () => {
    const goods = { placeId: await house.placeId('A-02-1'), itemId: await house.itemId('TOOL-JH'), lotId: 0, condition: 'good' };
    const answer = await ines
      .floor({ kind: 'issue', ...goods, units: 1, purpose: 'sample', note: 'for the fair', costCentre: 'SALES', how: 'scanned' })
      .expect(200);
    return (answer.body as { activityId: number }).activityId;
  };

  it('stands on the tape and beside the movement, for everybody at the site', async () => {
    const id = await used();
    expect(await tapeOf(maren, id)).toMatchObject({ picture: null });
    await ines.file('put', `tape/${id}/picture`, png).expect(204);
    const { picture } = (await tapeOf(maren, id))!;
    expect((await maren.bytes(`acts/${picture!}/picture`).expect(200)).headers['content-type']).toBe('image/webp');
    const { rows } = (await maren.get('items/TOOL-JH/movements')).body as { rows: { reason: string; picture: string | null }[] };
    expect(rows[0]).toMatchObject({ picture, reason: expect.stringContaining('for the fair') });
  });

  it('is added by whoever did it, to an act with goods, and is a picture', async () => {
    const id = await used();
    expect((await joss.file('put', `tape/${id}/picture`, png)).status).toBe(409);
    expect((await ines.file('put', `tape/${id}/picture`, Buffer.from('<svg/>'))).status).toBe(400);
    await ines.file('put', 'tape/99999999/picture', png).expect(404);
    expect(await tapeOf(maren, id)).toMatchObject({ picture: null });
    await house.order([['TOOL-JH', 1]]);
    const other = ((await maren.get('tape?limit=1')).body as Tape).entries[0]!;
    await maren.file('put', `tape/${other.id}/picture`, png).expect(404);
    await maren.get('acts/00000000-0000-4000-8000-000000000000/picture').expect(404);
    await maren.get('acts/nonsense/picture').expect(400);
  });

  it('is shown to nobody of another site', async () => {
    const id = await used();
    await ines.file('put', `tape/${id}/picture`, png).expect(204);
    const { picture } = (await tapeOf(maren, id))!;
    await house.source.query('UPDATE person_site SET site_id = 2 WHERE person_id = ?', [joss.personId]);
    await (await house.as('Joss')).get(`acts/${picture!}/picture`).expect(404);
  });

  it('goes with a number that was put right, where the books follow at once and where somebody else decides', async () => {
    for (const units of [9, 1]) {
      const answer = await maren.post('corrections', { place: 'A-02-1', sku: 'TOOL-JH', units, reason: 'found broken' }).expect(200);
      const { isBooked, activityId } = answer.body as { isBooked: boolean; activityId: number };
      await maren.file('put', `tape/${activityId}/picture`, png).expect(204);
      expect((await tapeOf(maren, activityId))?.picture).not.toBeNull();
      if (!isBooked) continue;
      const { rows } = (await maren.get('items/TOOL-JH/movements')).body as { rows: { picture: string | null }[] };
      expect(rows[0]?.picture).not.toBeNull();
    }
  });

  it('is seen by whoever decides on a number that waits among the reported bins', async () => {
    await house.stock('TOOL-JH', 'A-02-1', 90);
    const answer = await maren.post('corrections', { place: 'A-02-1', sku: 'TOOL-JH', units: 1, reason: 'box was empty' }).expect(200);
    const { isBooked, activityId } = answer.body as { isBooked: boolean; activityId: number };
    expect(isBooked).toBe(false);
    const waiting = async () =>
      ((await maren.get('sites/1/spot-counts').expect(200)).body as { sku: string; picture: string | null }[]).find(
        (s) => s.sku === 'TOOL-JH',
      );
    expect(await waiting()).toMatchObject({ picture: null });
    await maren.file('put', `tape/${activityId}/picture`, png).expect(204);
    const picture = (await waiting())?.picture ?? '';
    await maren.bytes(`acts/${picture}/picture`).expect(200);
  });
});
