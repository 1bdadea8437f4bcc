/** @jest-environment ./jest-page.js */
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { Dto } from '../../../api/client';
import { key } from '../../../api/keys';
import { FakeServer, shown } from '../../../testing/house';
import { GoodsActs } from './goods-acts';

const place = { id: 5, siteId: 1, code: 'A-01-1' } as Dto['PlaceSheetDto'];
const goods: Dto['PlaceStockDto'] = {
  itemId: 3,
  lotId: 0,
  sku: 'JAR',
  name: 'Jar',
  picture: 'jar',
  lot: null,
  condition: 'good',
  units: 12,
};

function corrected(onDone = () => undefined) {
  const view = shown(null);
  view.client.setQueryData(key('me'), { id: 1, rights: ['count'] });
  view.again(<GoodsActs place={place} goods={goods} onDone={onDone} />);
}
async function putRight() {
  await userEvent.clear(screen.getByRole('textbox', { name: 'Units that are there' }));
  await userEvent.type(screen.getByRole('textbox', { name: 'Units that are there' }), '11');
  await userEvent.type(screen.getByRole('textbox', { name: 'Why' }), 'one is broken');
  await userEvent.upload(screen.getByLabelText('Picture'), new File(['1'], 'shelf.png', { type: 'image/png' }));
  await userEvent.click(screen.getByRole('button', { name: 'Put the number right' }));
}

describe('a number put right at a desk', () => {
  it('takes its picture along, to its line of the tape', async () => {
    const server = new FakeServer()
      .on('POST /api/corrections', { body: { isBooked: true, says: 'The books follow', activityId: 44 } })
      .on('PUT /api/tape/44/picture', { status: 204 });
    corrected();
    await putRight();
    expect((await screen.findByRole('status')).textContent).toBe('The books follow');
    expect(server.count('PUT /api/tape/44/picture')).toBe(1);
    expect(server.asked[0]?.body).toMatchObject({ place: 'A-01-1', sku: 'JAR', units: 11, reason: 'one is broken' });
  });

  it('stands though its picture does not arrive, and says so', async () => {
    new FakeServer()
      .on('POST /api/corrections', { body: { isBooked: false, says: 'Somebody else decides', activityId: 45 } })
      .on('PUT /api/tape/45/picture', { status: 400, body: { detail: 'This is no picture' } });
    corrected();
    await putRight();
    await waitFor(() =>
      expect(screen.getByRole('status').textContent).toBe('Somebody else decides. That stands, without its picture: This is no picture'),
    );
  });
});
