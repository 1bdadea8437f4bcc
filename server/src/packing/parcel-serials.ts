import { Injectable } from '@nestjs/common';
import type { ItemFacts } from '@vectrum/core/scan';
import { insert, isDuplicate, one, refused, remove, type Tx, update } from '../platform/index.js';

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

  /** So many pieces of a line are wanted no longer in a parcel: those that came into it last. */
  async fewer(tx: Tx, parcelId: number, lineId: number, units: number): Promise<void> {
    await tx.query('DELETE FROM parcel_serial WHERE parcel_id = ? AND order_line_id = ? ORDER BY id DESC LIMIT ?', [
      parcelId,
      lineId,
      units,
    ]);
  }
}
