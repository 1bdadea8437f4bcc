import type { Dto } from '../../api/client';

/** A transfer's own paper, or the label of one of its parcels. */
export const TRANSFER_PAPER = /^(T-\d{4,})(?:-(\d+))?$/;

/** Where the code of a transfer or of one of its parcels leads: to gathering what goes, or to taking in what comes, the parcel noted there. */
export function transferPath(open: readonly Dto['OpenTransferDto'][] | undefined, paper: string): string {
  const document = TRANSFER_PAPER.exec(paper)?.[1] ?? paper;
  const kind = open?.find((t) => t.code === document)?.kind ?? 'take-in';
  return kind === 'take-in' && document !== paper ? `/floor/take-in/${document}?parcel=${paper}` : `/floor/${kind}/${document}`;
}
