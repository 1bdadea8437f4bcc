import { XMLBuilder, XMLParser, XMLValidator } from 'fast-xml-parser';

/** An element of a document, its name written with the standard's own prefix whatever prefix its sender used. */
export interface XmlElement {
  name: string;
  attributes: Readonly<Record<string, string>>;
  children: readonly XmlElement[];
  /** The text between its tags, trimmed; empty for those with children. */
  text: string;
}

/** Why a document cannot be read, in a sentence for whoever sent it. */
export class XmlFault extends Error {}

export const MOST_XML_BYTES = 2 * 1024 * 1024;
const MOST_DEPTH = 40;
const MOST_ELEMENTS = 60_000;

const PREFIXES: Readonly<Record<string, string>> = {
  'urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2': 'cbc:',
  'urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2': 'cac:',
  'urn:oasis:names:specification:ubl:schema:xsd:CommonExtensionComponents-2': 'ext:',
};
const DOCUMENT = /^urn:oasis:names:specification:ubl:schema:xsd:([A-Za-z]+)-2$/;

type Node = Record<string, unknown>;

const parser = new XMLParser({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  parseTagValue: false,
  parseAttributeValue: false,
  trimValues: true,
  processEntities: true,
  htmlEntities: false,
  ignoreDeclaration: true,
  ignorePiTags: true,
});

/**
 * Reads a document. Refuses what is too large or nested too deeply, any document type declaration (entities come by it), and
 * what is not well formed. O(length).
 */
export function readXml(bytes: Uint8Array): XmlElement {
  if (bytes.length > MOST_XML_BYTES) throw new XmlFault('The document is larger than 2 MB. Send it in parts');
  const text = new TextDecoder('utf-8').decode(bytes).replace(/^\uFEFF/, '');
  if (/<!\s*(DOCTYPE|ENTITY|ELEMENT|ATTLIST|NOTATION)/i.test(text))
    throw new XmlFault('A document type declaration is not taken. Send the document without it');
  const bare = withoutComments(text);
  mustBeShallow(bare);
  const checked = XMLValidator.validate(bare);
  if (checked !== true) throw new XmlFault(`The document is not well formed: ${checked.err.msg} (line ${checked.err.line})`);
  let nodes: Node[];
  try {
    nodes = parser.parse(bare) as Node[];
  } catch {
    throw new XmlFault('The document is not well formed');
  }
  const root = nodes.find((n) => tagOf(n) !== undefined);
  if (!root) throw new XmlFault('There is no document in it');
  return elementOf(root, {}, { elements: 0 });
}

const ENDS: readonly (readonly [begin: string, end: string])[] = [
  ['<!--', '-->'],
  ['<![CDATA[', ']]>'],
];

/** A document without its comments, and with the text that it marks as such written like other text; each is gone through once. */
function withoutComments(text: string): string {
  const parts: string[] = [];
  let from = 0;
  for (let at = text.indexOf('<!'); at >= 0; at = text.indexOf('<!', from)) {
    const [begin, end] = ENDS.find(([b]) => text.startsWith(b, at)) ?? [];
    const to = end === undefined ? -1 : text.indexOf(end, at + (begin?.length ?? 0));
    if (begin === undefined || end === undefined || to < 0)
      throw new XmlFault('The document is not well formed: something that begins with <! has no end');
    parts.push(text.slice(from, at), begin === '<!--' ? '' : escaped(text.slice(at + begin.length, to)));
    from = to + end.length;
  }
  return parts.length === 0 ? text : parts.join('') + text.slice(from);
}

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

/** Depth and number of tags, before anything is built of them. */
function mustBeShallow(text: string): void {
  let depth = 0;
  let count = 0;
  for (const [tag] of text.matchAll(/<\/?[A-Za-z_][^<>]*>/g)) {
    const closed = tag.endsWith('/>');
    count += closed ? 2 : 1;
    if (!closed) depth += tag.startsWith('</') ? -1 : 1;
    if (depth > MOST_DEPTH) throw new XmlFault(`The document is nested more than ${MOST_DEPTH} deep`);
    if (count > 2 * MOST_ELEMENTS) throw new XmlFault('The document has too many elements. Send it in parts');
  }
}

const tagOf = (node: Node): string | undefined => Object.keys(node).find((k) => k !== ':@' && k !== '#text');

function elementOf(node: Node, outer: Readonly<Record<string, string>>, seen: { elements: number }): XmlElement {
  seen.elements += 1;
  if (seen.elements > MOST_ELEMENTS) throw new XmlFault('The document has too many elements. Send it in parts');
  const tag = tagOf(node) ?? '';
  const all = (node[':@'] ?? {}) as Record<string, string>;
  const declared = Object.entries(all).filter(([k]) => k === 'xmlns' || k.startsWith('xmlns:'));
  const spaces = { ...outer, ...Object.fromEntries(declared.map(([k, uri]) => [k === 'xmlns' ? '' : k.slice(6), uri])) };
  const inner = node[tag] as Node[];
  const children = inner.filter((n) => tagOf(n) !== undefined).map((n) => elementOf(n, spaces, seen));
  const text = inner.flatMap((n) => ('#text' in n ? [String(n['#text'])] : [])).join('');
  return {
    name: nameIn(tag, spaces),
    attributes: Object.fromEntries(Object.entries(all).filter(([k]) => k !== 'xmlns' && !k.startsWith('xmlns:'))),
    children,
    text: children.length === 0 ? text.trim() : '',
  };
}

function nameIn(tag: string, spaces: Readonly<Record<string, string>>): string {
  const colon = tag.indexOf(':');
  const [prefix, local] = colon < 0 ? ['', tag] : [tag.slice(0, colon), tag.slice(colon + 1)];
  const uri = spaces[prefix] ?? '';
  const document = DOCUMENT.exec(uri)?.[1];
  if (uri in PREFIXES) return `${PREFIXES[uri] ?? ''}${local}`;
  return document === local ? local : `{${uri}}${local}`;
}

/** A child to write: its name, its text or children, its attributes. Absent ones are left out. */
export type Written = [name: string, value: string | number | readonly (Written | null)[], attributes?: Record<string, string>];

/** Writes a document with the standard's namespaces. Escaping is the builder's. */
export function writeXml(document: string, children: readonly (Written | null)[]): string {
  const builder = new XMLBuilder({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: '',
    format: true,
    suppressEmptyNode: true,
  });
  const space = (name: string) => `urn:oasis:names:specification:ubl:schema:xsd:${name}-2`;
  const root = {
    [document]: children.flatMap(nodeOf),
    ':@': { xmlns: space(document), 'xmlns:cac': space('CommonAggregateComponents'), 'xmlns:cbc': space('CommonBasicComponents') },
  };
  return `<?xml version="1.0" encoding="UTF-8"?>\n${builder.build([root]).trim()}\n`;
}

function nodeOf(written: Written | null): Node[] {
  if (!written) return [];
  const [name, value, attributes] = written;
  const inner = typeof value === 'string' || typeof value === 'number' ? [{ '#text': String(value) }] : value.flatMap(nodeOf);
  return [{ [name]: inner, ...(attributes ? { ':@': attributes } : {}) }];
}

/** The first element at a path of names, such as `cac:Party/cac:PartyName/cbc:Name`. */
export function at(element: XmlElement | undefined, path: string): XmlElement | undefined {
  return path.split('/').reduce<XmlElement | undefined>((e, name) => e?.children.find((c) => c.name === name), element);
}
export const textAt = (element: XmlElement | undefined, path: string): string | null => at(element, path)?.text || null;
export const all = (element: XmlElement | undefined, name: string): XmlElement[] => element?.children.filter((c) => c.name === name) ?? [];
