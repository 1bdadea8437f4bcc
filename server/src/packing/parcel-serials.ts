import { Injectable } from '@nestjs/common';
import type { ItemFacts } from '@vectrum/core/scan';
import { insert, isDuplicate, num, one, refused, remove, type Tx, update } from '../platform/index.js';

const no = (title: string, detail: string) => refused({ band: 'not-this', title, detail });

/** Serial numbers that are asked for only when a piece is packed: each lies in one parcel, and says later to whom it went. */
@Injectable()
export class ParcelSerials {
  /** A piece with its number goes into a parcel. Returns the number as it is kept; undefined for an item that asks for none. */
  async packed(
    tx: Tx,
    item: ItemFacts,
    into: { parcelId: number; lineId: number },
    { units, serial: given }: { units: number; serial?: string },
  ): Promise<string | undefined> {
    if (!item.asksSerial) return undefined;
    const serial = given?.trim().toUpperCase();
    if (!serial) throw no(item.name, 'Scan its serial number');
    if (units !== 1) throw no(item.name, 'Scan single pieces: each has a serial number of its own');
    try {
      await insert(tx, 'parcel_serial', { parcel_id: into.parcelId, order_line_id: into.lineId, item_id: item.id, serial });
    } catch (thrown) {
      if (!isDuplicate(thrown)) throw thrown;
      const lies = await one<{ code: string }>(
        tx,
        'SELECT p.code FROM parcel_serial s JOIN parcel p ON p.id = s.parcel_id WHERE s.item_id = ? AND s.serial = ?',
        [item.id, serial],
      );
      throw no(serial, `It is in parcel ${lies?.code ?? 'of another order'} already. Scan the number of another piece`);
    }
    return serial;
  }

  /** A piece goes from one parcel into another, with its number. */
  async moved(
    tx: Tx,
    item: ItemFacts,
    from: number,
    to: number,
    { units, serial: given }: { units: number; serial?: string },
  ): Promise<void> {
    if (!item.asksSerial) return;
    const serial = given?.trim().toUpperCase();
    if (!serial || units !== 1) throw no(item.name, 'Scan the serial number of each piece that comes out');
    const moved = await update(tx, 'parcel_serial', { item_id: item.id, serial, parcel_id: from }, { parcel_id: to });
    if (moved === 0) throw no(serial, 'It is not in that parcel');
  }

  /** A piece is out of its parcel. */
  async out(tx: Tx, itemId: number, serial: string): Promise<void> {
    await remove(tx, 'parcel_serial', { item_id: itemId, serial });
  }

  /** Nothing of a parcel goes to anybody any more. */
  async apart(tx: Tx, parcelId: number): Promise<void> {
    await remove(tx, 'parcel_serial', { parcel_id: parcelId });
  }

  /** Pieces of a line are wanted no longer in a parcel. Where none is left all numbers are out; which of several it is says who takes it. */
  async fewer(tx: Tx, parcelId: number, lineId: number, units: number): Promise<void> {
    const there = await one<{ units: string | null }>(
      tx,
      'SELECT SUM(units) AS units FROM parcel_line WHERE parcel_id = ? AND order_line_id = ?',
      [parcelId, lineId],
    );
    if (num(there?.units) <= units) await remove(tx, 'parcel_serial', { parcel_id: parcelId, order_line_id: lineId });
  }

  /** By how many a parcel has more numbers than pieces, of the line of which that is most; 0 where they agree. */
  async over(tx: Tx, parcelId: number): Promise<number> {
    const found = await one<{ over: string }>(
      tx,
      `SELECT COUNT(*) - COALESCE((SELECT SUM(c.units) FROM parcel_line c WHERE c.parcel_id = s.parcel_id AND c.order_line_id = s.order_line_id), 0) AS \`over\`
       FROM parcel_serial s WHERE s.parcel_id = ? GROUP BY s.order_line_id ORDER BY \`over\` DESC LIMIT 1`,
      [parcelId],
    );
    return Math.max(0, num(found?.over));
  }

  /** The number of a piece that was taken out, since there are more numbers than pieces in its parcel. */
  async cameOut(tx: Tx, orderId: number, line: number, given: string): Promise<string> {
    const serial = given.trim().toUpperCase();
    const lies = await one<{ itemId: number; parcelId: number; code: string }>(
      tx,
      'SELECT s.item_id AS itemId, s.parcel_id AS parcelId, p.code FROM parcel_serial s JOIN parcel p ON p.id = s.parcel_id JOIN sales_order_line l ON l.id = s.order_line_id WHERE p.order_id = ? AND l.line = ? AND s.serial = ?',
      [orderId, line, serial],
    );
    if (!lies) throw no(serial, 'It is in no parcel of this order');
    if ((await this.over(tx, lies.parcelId)) === 0) throw no(serial, `Nothing was taken out of ${lies.code}. Repack it if it comes out`);
    await this.out(tx, lies.itemId, serial);
    return lies.code;
  }
}
