import { drawParcelList, finish, type Letterhead, newPaper, type PackedParcel } from '../paper/index.js';

/** What is in one parcel, on A4 and without prices; its barcode opens the parcel wherever it is scanned. */
export async function parcelListPdf(parcel: PackedParcel, from: Letterhead): Promise<Buffer> {
  const paper = newPaper(`Packing list ${parcel.code}`);
  await drawParcelList(paper, parcel, from);
  return finish(paper);
}
