/** One thing that changed on a document, as its history keeps it. */
export interface DocumentChange {
  /** The number of a line; null for the document as a whole. */
  line: number | null;
  what: string;
  was: string | number | null;
  becomes: string | number | null;
}

const said = (value: string | number | null) => (value === null || value === '' ? 'nothing' : String(value)).slice(0, 200);

/** The changes that change something, each with what a history's row says of it; `why` is cut at 120 characters. */
export const realChanges = (changes: readonly DocumentChange[], why: string) =>
  changes
    .map((change) => ({ change, row: { line: change.line, what: change.what, was: said(change.was), becomes: said(change.becomes) } }))
    .filter(({ row }) => row.was !== row.becomes)
    .map(({ change, row }) => ({ change, row: { ...row, why: why.slice(0, 120) } }));
