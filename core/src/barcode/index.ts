export { checkDigit, hasCheckDigit, expandUpcE, checkPair } from './check-digit.js';
export { readGs1, SEPARATOR, type Gs1Data, type Gs1Fault, type Gs1Options, type Gs1Result } from './gs1.js';
export type { Gs1Error } from './value.js';
export { boxOf, commandOf, normalCode, type CommandCode } from './command-code.js';
export { IN_HOUSE_PREFIXES, restrictedNumber, type InHousePrefix } from './in-house.js';
export { isOfElements, lacksSeparator, scannedText } from './scanned-text.js';
