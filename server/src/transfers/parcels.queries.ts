import { one, rows, type Tx } from '../platform/index.js';
import type { TransferParcelDto } from './parcels.dto.js';

/** The parcels of a transfer, as they were packed. */
export function parcelsOf(tx: Pick<Tx, 'query'>, transferId: number): Promise<TransferParcelDto[]> {
  return rows<TransferParcelDto>(
    tx,
    `SELECT p.code, p.state, p.weight_g AS weightG, p.carton AS box, c.name AS carrier, p.service, p.tracking, p.price, p.here_at AS hereAt,
       (SELECT x.last_error FROM outbox x WHERE x.kind = 'transfer.label' AND x.document = t.code AND x.state <> 'done' AND JSON_VALUE(x.payload, '$.parcel') = p.code ORDER BY x.id DESC LIMIT 1) AS problem
     FROM transfer_parcel p JOIN transfer t ON t.id = p.transfer_id LEFT JOIN carrier c ON c.id = p.carrier_id WHERE p.transfer_id = ? AND p.state <> 'removed' ORDER BY p.number`,
    [transferId],
  );
}

/** By whom a transfer goes and its first number, as its parcels say; empty where they say nothing. */
export async function goesBy(tx: Tx, transferId: number): Promise<{ carrier: string; tracking: string; waits: string | null }> {
  const parcels = await parcelsOf(tx, transferId);
  const carriers = [...new Set(parcels.flatMap((p) => p.carrier ?? []))];
  return {
    carrier: carriers.join(', ').slice(0, 60),
    tracking: parcels.find((p) => p.tracking)?.tracking ?? '',
    waits: parcels.find((p) => p.state === 'label-asked')?.code ?? null,
  };
}

/** Where a site is, as a carrier is told of it; null where nobody has said. */
export async function addressOf(
  tx: Pick<Tx, 'query'>,
  siteId: number,
): Promise<{ name: string; line: string; city: string; postcode: string; country: string } | null> {
  const site = await one<{ name: string; line: string; city: string; postcode: string; country: string }>(
    tx,
    'SELECT name, address_line AS line, city, postcode, country FROM site WHERE id = ?',
    [siteId],
  );
  return site && site.postcode !== '' && site.country !== '' ? site : null;
}
