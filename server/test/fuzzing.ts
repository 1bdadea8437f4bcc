import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { randomUUID } from 'node:crypto';

interface Schema {
  $ref?: string;
  type?: string;
  enum?: unknown[];
  properties?: Record<string, Schema>;
  required?: string[];
  items?: Schema;
  oneOf?: Schema[];
  anyOf?: Schema[];
  allOf?: Schema[];
  minimum?: number;
  format?: string;
}
interface Operation {
  parameters?: { name: string; in: string; schema?: Schema }[];
  requestBody?: { content: Record<string, { schema?: Schema }> };
}
interface Document {
  paths: Record<string, Record<string, Operation>>;
  components: { schemas: Record<string, Schema> };
}

export interface Sent {
  method: string;
  /** The path as the document has it. */
  route: string;
  url: string;
  headers: Record<string, string>;
  body: string | undefined;
}

/** What no form sends, and everything may meet: each has broken some server somewhere. */
const ODD: readonly unknown[] = [
  null,
  '',
  ' ',
  [],
  {},
  [[]],
  [null],
  [['x']],
  [{}],
  true,
  -1,
  0,
  0.5,
  1e99,
  -1e99,
  4_294_967_296,
  Number.MAX_SAFE_INTEGER,
  '1e99',
  'Infinity',
  'NaN',
  '-0',
  '99999999999999999999999999',
  '__proto__',
  'constructor',
  'toString',
  '\ud800',
  'x\udfff',
  '\u0000',
  '\u001d\u001e',
  '\u202e',
  '𝄞𝄞',
  'ﬀ'.repeat(40),
  'x'.repeat(5_000),
  "'; DROP TABLE item; --",
  '%',
  '_%_',
  '../../etc/passwd',
  '2026-W48-6',
  '2026-02-30',
  '0000-00-00',
  '+275760-09-13T00:00:00.000Z',
  '-271821-04-20T00:00:00.000Z',
  '9999-12-31T23:59:59.999Z',
  '24:00',
  { length: 1e9 },
  { toString: 1 },
  { $gt: '' },
];

/** Texts in place of a body. */
const ODD_BODIES: readonly string[] = [
  '',
  '{',
  'null',
  '[]',
  '"text"',
  '1e400',
  `${'['.repeat(4_000)}${']'.repeat(4_000)}`,
  `${'{"a":'.repeat(4_000)}1${'}'.repeat(4_000)}`,
  '{"__proto__":{"rights":["set-up"]},"constructor":{"prototype":{"x":1}}}',
  '\ufeff{}',
  '{"a":"\\ud800"}',
  '<?xml version="1.0"?><!DOCTYPE x [<!ENTITY a "aaaa">]><Order>&a;</Order>',
];
const ODD_HEADERS: readonly Record<string, string>[] = [
  {},
  { 'if-match': '"1"' },
  { 'if-match': '"99999999999999999999"' },
  { 'if-match': '*' },
  { 'if-match': 'W/"\\"' },
  { 'device-time': '+275760-09-13T00:00:00.000Z' },
  { 'device-time': '-271821-04-20T00:00:00.000Z' },
  { 'device-time': '9999-12-31T23:59:59.999Z' },
  { 'device-time': '0001-01-01T00:00:00Z' },
  { 'idempotency-key': 'not a key' },
  { 'content-type': 'application/x-www-form-urlencoded' },
  { 'content-type': 'application/octet-stream' },
  { 'content-type': 'text/xml' },
  { accept: 'image/png' },
];

/** Requests made from the OpenAPI document, so that every route is in them: what it asks for, and that with something odd in it. */
export class Fuzzer {
  private readonly document: Document;
  /** `known` are texts that the house knows, of every kind. */
  constructor(
    private readonly random: () => number,
    private readonly known: readonly unknown[],
  ) {
    this.document = JSON.parse(readFileSync(resolve(import.meta.dirname, '../openapi.json'), 'utf8')) as Document;
  }

  /** Every route with its method. */
  get routes(): [route: string, method: string][] {
    return Object.entries(this.document.paths).flatMap(([route, methods]) =>
      Object.keys(methods).map((method): [string, string] => [route, method]),
    );
  }

  request(route: string, method: string): Sent {
    const operation = this.document.paths[route]![method]!;
    const parameters = operation.parameters ?? [];
    const url = route.replace(/\{(\w+)\}/g, (_, name: string) => {
      const schema = parameters.find((p) => p.name === name)?.schema;
      return escaped(this.chance(0.7) ? this.sample(schema ?? {}) : this.odd());
    });
    const query = parameters
      .filter((p) => p.in === 'query' && this.chance(0.6))
      .flatMap((p) => (this.chance(0.1) ? [p, p] : [p]))
      .map(
        (p) =>
          `${escaped(p.name)}${this.chance(0.05) ? '[x]' : ''}=${escaped(this.chance(0.3) ? this.sample(p.schema ?? {}) : this.odd())}`,
      );
    const schema = operation.requestBody && Object.values(operation.requestBody.content)[0]?.schema;
    return {
      method: method.toUpperCase(),
      route,
      url: url + (query.length > 0 ? `?${query.join('&')}` : ''),
      headers: { 'content-type': 'application/json', 'idempotency-key': randomUUID(), 'if-match': '"1"', ...this.pick(ODD_HEADERS) },
      body: method === 'get' || method === 'delete' ? undefined : this.body(schema),
    };
  }

  private body(schema: Schema | undefined): string {
    if (this.chance(0.1)) return this.pick(ODD_BODIES);
    const whole = this.sample(schema ?? {});
    for (let n = this.chance(0.3) ? 0 : 1 + Math.floor(this.random() * 2); n > 0; n--) this.spoil(whole);
    return JSON.stringify(whole) ?? '';
  }

  /** Puts something odd in one place of a value. */
  private spoil(value: unknown): void {
    if (typeof value !== 'object' || value === null) return;
    const keys = Object.keys(value);
    if (keys.length === 0) return;
    const key = this.pick(keys);
    const inner = (value as Record<string, unknown>)[key];
    if (typeof inner === 'object' && inner !== null && this.chance(0.6)) this.spoil(inner);
    else (value as Record<string, unknown>)[key] = this.odd();
  }

  /** A value that a schema may well take. */
  private sample(schema: Schema, depth = 0): unknown {
    if (schema.$ref) return this.sample(this.document.components.schemas[schema.$ref.split('/').pop() ?? ''] ?? {}, depth + 1);
    const some = schema.oneOf ?? schema.anyOf ?? schema.allOf;
    if (some) return this.sample(this.pick(some), depth + 1);
    if (schema.enum) return this.pick(schema.enum);
    if (schema.type === 'object' || schema.properties) {
      if (depth > 8) return {};
      const entries = Object.entries(schema.properties ?? {}).filter(([key]) => schema.required?.includes(key) || this.chance(0.6));
      return Object.fromEntries(entries.map(([key, inner]) => [key, this.sample(inner, depth + 1)]));
    }
    if (schema.type === 'array')
      return Array.from({ length: Math.floor(this.random() * 3) }, () => this.sample(schema.items ?? {}, depth + 1));
    if (schema.type === 'boolean') return this.chance(0.5);
    if (schema.type === 'number' || schema.type === 'integer') return this.pick([1, 2, 3, 12, 48, Math.floor(this.random() * 500)]);
    return this.pick(this.known);
  }

  private odd(): unknown {
    return structuredClone(this.pick(ODD));
  }

  private chance(p: number): boolean {
    return this.random() < p;
  }

  private pick<T>(list: readonly T[]): T {
    return list[Math.floor(this.random() * list.length)]!;
  }
}

/** A value in a path or a query. A lone surrogate has no escape: it goes as the bytes that a careless client makes of it. */
function escaped(value: unknown): string {
  const text = typeof value === 'string' ? value : (JSON.stringify(value) ?? '');
  try {
    return encodeURIComponent(text);
  } catch {
    return '%ED%A0%80';
  }
}
