import type { LabelRecord, LabelSubject } from './types.js';

export interface LabelField {
  key: string;
  says: string;
  sample: string;
}

/** The fields that a label of each subject can show, with what they look like. */
export const LABEL_FIELDS: Readonly<Record<LabelSubject, readonly LabelField[]>> = {
  place: [
    { key: 'code', says: 'Code', sample: 'C-07-2' },
    { key: 'aisle', says: 'Aisle', sample: 'C' },
    { key: 'bay', says: 'Bay', sample: '07' },
    { key: 'level', says: 'Level', sample: '2' },
    { key: 'kind', says: 'Kind', sample: 'pick face' },
    { key: 'site', says: 'Site', sample: 'Main site' },
    { key: 'zone', says: 'Zone', sample: 'Treatments' },
  ],
  item: [
    { key: 'name', says: 'Name', sample: 'Jar 454 g, round' },
    { key: 'sku', says: 'SKU', sample: 'JAR-454-RD' },
    { key: 'barcode', says: 'Barcode', sample: '9521077000010' },
    { key: 'gs1', says: 'GS1 data', sample: '(01)09521077000010(17)270331(10)L2610' },
    { key: 'pack', says: 'Pack', sample: 'tray of 48' },
    { key: 'lot', says: 'Lot', sample: 'L2610' },
    { key: 'expires', says: 'Expires', sample: '2027-03-31' },
    { key: 'home', says: 'Home bin', sample: 'C-07-2' },
    { key: 'class', says: 'Class', sample: 'Jars and lids' },
  ],
  badge: [
    { key: 'name', says: 'Name', sample: 'Ines Calder' },
    { key: 'badge', says: 'Badge', sample: 'V-1005' },
    { key: 'duty', says: 'Duty', sample: 'picker' },
    { key: 'company', says: 'Company', sample: 'Company' },
  ],
  document: [
    { key: 'code', says: 'Code', sample: 'P-1187' },
    { key: 'title', says: 'Title', sample: 'Quillon Glassware' },
    { key: 'kind', says: 'Kind', sample: 'purchase order' },
    { key: 'date', says: 'Date', sample: '2026-05-14' },
  ],
};

/** A label with every field filled with its sample. */
export function sampleRecord(subject: LabelSubject): LabelRecord {
  return Object.fromEntries(LABEL_FIELDS[subject].map((f) => [f.key, f.sample]));
}

const FIELD = /\{([a-z0-9]*)\}/g;

/** Text with its fields replaced by their values; an unknown field stays as it stands. */
export function fill(text: string, record: LabelRecord): string {
  return text.replace(FIELD, (whole, key: string) => (Object.hasOwn(record, key) ? (record[key] ?? '') : whole));
}

/** The fields that a text names and the subject does not have. */
export function unknownFields(text: string, subject: LabelSubject): string[] {
  return [...text.matchAll(FIELD)].map((m) => m[1] ?? '').filter((key) => !LABEL_FIELDS[subject].some((f) => f.key === key));
}
