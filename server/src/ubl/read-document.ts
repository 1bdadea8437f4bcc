import { readDespatchAdvice, type UblDespatchAdvice } from './despatch-advice.document.js';
import { readOrderResponse, type UblOrderResponse } from './order-response.document.js';
import { structureFaults } from './structure.js';
import { readXml, XmlFault } from './xml.js';

/** A document of a supplier: its kind as the standard names it, the number that its sender gave it, and what it says. */
export interface SupplierDocument {
  kind: string;
  ref: string;
  /** What an OrderResponse says. */
  response: UblOrderResponse | null;
  /** What a DespatchAdvice says. */
  advice: UblDespatchAdvice | null;
}

/** Reads a document that a supplier sends. Throws XmlFault for what is not UBL 2.1. O(length). */
export function readSupplierDocument(bytes: Uint8Array): SupplierDocument {
  const root = readXml(bytes);
  const faults = structureFaults(root);
  if (faults.length > 0) throw new XmlFault(`This is not UBL 2.1: ${faults.slice(0, 3).join('; ')}`);
  const ref = root.children.find((c) => c.name === 'cbc:ID')?.text.slice(0, 60) ?? '';
  return {
    kind: root.name,
    ref,
    response: root.name === 'OrderResponse' ? readOrderResponse(root) : null,
    advice: root.name === 'DespatchAdvice' ? readDespatchAdvice(root) : null,
  };
}
