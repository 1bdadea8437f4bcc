import { lookup as resolveName } from 'node:dns';
import { get as getPlain, type IncomingMessage } from 'node:http';
import { get as getSecure } from 'node:https';
import { BlockList, isIP, type LookupFunction } from 'node:net';

/** A file that will not be had however often it is asked for: the reason, for people. */
export class NotToBeHad extends Error {}

interface Limits {
  mostBytes: number;
  timeoutMs: number;
  /** Whether addresses of the house's own network may be asked. */
  inside: boolean;
}

const MOST_HOPS = 4;

/** Addresses that lead into a network rather than out of it (IANA special-purpose registries). */
const INSIDE = new BlockList();
for (const [net, bits] of [
  ['0.0.0.0', 8],
  ['10.0.0.0', 8],
  ['100.64.0.0', 10],
  ['127.0.0.0', 8],
  ['169.254.0.0', 16],
  ['172.16.0.0', 12],
  ['192.0.0.0', 24],
  ['192.168.0.0', 16],
  ['198.18.0.0', 15],
  ['224.0.0.0', 3],
] as const)
  INSIDE.addSubnet(net, bits, 'ipv4');
for (const [net, bits] of [
  ['::', 128],
  ['::1', 128],
  ['64:ff9b::', 96],
  ['fc00::', 7],
  ['fe80::', 10],
  ['ff00::', 8],
] as const)
  INSIDE.addSubnet(net, bits, 'ipv6');

/** Whether an IP address leads into a network of the house's own. IPv4 written as IPv6 counts as what it is. */
export function isInside(address: string): boolean {
  const plain = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(address)?.[1] ?? address;
  const family = isIP(plain);
  return family === 0 || INSIDE.check(plain, family === 4 ? 'ipv4' : 'ipv6');
}

/**
 * Fetches a file from an address that somebody typed. The name is resolved once and the connection goes to that very
 * address, so that no name can lead inside after it was checked; each redirect is checked anew. Throws `NotToBeHad` where
 * trying again would not help, any other error where it might.
 */
export async function fetchFile(link: string, limits: Limits): Promise<Buffer> {
  let url = link;
  for (let hop = 0; hop < MOST_HOPS; hop++) {
    const answer = await ask(url, limits);
    if (Buffer.isBuffer(answer)) return answer;
    url = new URL(answer.to, url).href;
  }
  throw new NotToBeHad('The link is passed on too often');
}

function ask(link: string, limits: Limits): Promise<Buffer | { to: string }> {
  const url = URL.canParse(link) ? new URL(link) : null;
  if (!url || (url.protocol !== 'http:' && url.protocol !== 'https:')) throw new NotToBeHad('This is no link to a file');
  const name = url.hostname.replace(/^\[|\]$/g, '');
  if (isIP(name) && !limits.inside && isInside(name)) throw new NotToBeHad(INSIDE_SAYS);
  const get = url.protocol === 'https:' ? getSecure : getPlain;
  return new Promise((resolve, reject) => {
    const signal = AbortSignal.timeout(limits.timeoutMs);
    const request = get(url, { lookup: outsideOnly(limits.inside), signal, agent: false }, (response) => {
      void read(response, limits.mostBytes).then(resolve, reject);
    });
    request.on('error', reject);
  });
}

const INSIDE_SAYS = 'The link leads into the house’s own network. An owner can allow that under Setup, Company';

const outsideOnly =
  (inside: boolean): LookupFunction =>
  (name, options, done) =>
    resolveName(name, { ...options, all: true }, (fault, found) => {
      if (fault) return done(fault, '', 0);
      const allowed = inside ? found : found.filter((a) => !isInside(a.address));
      if (allowed.length === 0) return done(new NotToBeHad(INSIDE_SAYS), '', 0);
      if (options.all) return (done as unknown as (e: null, all: typeof allowed) => void)(null, allowed);
      done(null, allowed[0]?.address ?? '', allowed[0]?.family ?? 4);
    });

async function read(response: IncomingMessage, mostBytes: number): Promise<Buffer | { to: string }> {
  const status = response.statusCode ?? 0;
  const { location } = response.headers;
  if (status !== 200) response.destroy();
  if (status >= 300 && status < 400 && location) return { to: location };
  if (status >= 400 && status < 500 && status !== 408 && status !== 429) throw new NotToBeHad(`The link answers ${status}`);
  if (status !== 200) throw new Error(`The link answers ${status}`);
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of response) {
    size += (part as Buffer).length;
    if (size > mostBytes) throw new NotToBeHad(`The file is larger than ${Math.round(mostBytes / 1_048_576)} MB`);
    parts.push(part as Buffer);
  }
  return Buffer.concat(parts);
}
