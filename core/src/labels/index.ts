export type * from './types.js';
export { fill, LABEL_FIELDS, sampleRecord, unknownFields, type LabelField } from './fields.js';
export { faultOfMedia, faultsOf, MOST_LABELS, placeLabels, type PlacedLabel } from './design.js';
export { barcodeOf, gs1Text, type DrawnBarcode } from './barcodes.js';
