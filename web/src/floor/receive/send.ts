import type { ReceiveCommand, ReceivePalletCommand, TieCommand } from '@vectrum/core/scan';
import type { Codebook } from '@vectrum/core/scan';
import { api, ask, type Dto } from '../../api/client';

export type FloorCommand = ReceiveCommand | ReceivePalletCommand | TieCommand;

/** Posts a command of the dock under its own key. `book` says what a tied code is on. */
export function sendReceive(command: FloorCommand, book: Codebook): Promise<Dto['ReceivedDto'] | undefined> {
  const headers = { 'idempotency-key': command.id };
  switch (command.kind) {
    case 'receive': {
      const { kind: _, id: __, document, ...body } = command;
      return ask(api.POST('/api/floor/receive/{code}', { params: { path: { code: document } }, headers, body }));
    }
    case 'receive-pallet': {
      const { sscc, toPlaceId, how } = command;
      return ask(
        api.POST('/api/floor/receive/{code}/pallets', {
          params: { path: { code: command.document } },
          headers,
          body: { sscc, toPlaceId, how },
        }),
      );
    }
    case 'tie': {
      const item = book.items[command.itemId];
      const factor = item?.packs.find((p) => p.id === command.packId)?.factor ?? 1;
      return ask(
        api.POST('/api/items/{sku}/barcodes', {
          params: { path: { sku: item?.sku ?? '' } },
          headers,
          body: { factor, code: command.code },
        }),
      ).then(() => undefined);
    }
  }
}
