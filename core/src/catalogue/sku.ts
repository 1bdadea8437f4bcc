/**
 * Stock codes as firms write them: up to 39 letters (also with marks), digits and `. _ - / + # & ( )`, with single spaces between; a
 * letter or digit first.
 */
export const SKU = /^(?!.* {2})[\p{L}\p{N}][\p{L}\p{N}\p{M} ._\-/+#&()]{0,38}(?<! )$/u;
export const SKU_SAYS = 'A SKU is up to 39 letters, digits, single spaces and . - _ / + # & ( ), a letter or digit first';

/** How a SKU is kept: capitals, marks composed (also those that a capital has apart), one space where there were several. */
export const keptSku = (sku: string): string => sku.trim().replace(/\s+/g, ' ').normalize('NFC').toUpperCase().normalize('NFC');

/** What two SKUs have in common that differ only in marks: no two items may, since the books do not tell them apart. */
export const foldedSku = (sku: string): string => keptSku(sku).replace(/ß/g, 'SS').normalize('NFKD').replace(/\p{M}/gu, '');
