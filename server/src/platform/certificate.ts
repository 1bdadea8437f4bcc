import { X509Certificate } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { hostname, networkInterfaces } from 'node:os';
import { join } from 'node:path';
import { generate } from 'selfsigned';

const AUTHORITY_YEARS = 10;
/** Phones refuse certificates that are good for longer than this. */
const LEAF_DAYS = 397;
const RENEW_DAYS = 30;
const DAY_MS = 86_400_000;
const WEAKEST_BITS = 2048;

interface Pair {
  key: string;
  cert: string;
}

/** What a page of this house is served with over HTTPS. */
export interface ServingCertificate extends Pair {
  /** The authority that phones are told to trust, once. */
  authority: string;
}

/** This machine's names and addresses in its networks. */
export function ownAddresses(): string[] {
  const found = Object.values(networkInterfaces())
    .flat()
    .flatMap((i) => (i && i.family === 'IPv4' ? [i.address] : []));
  return [...new Set(['127.0.0.1', ...found])];
}

/**
 * A certificate for this machine, signed by an authority of the house's own: both made at the first start and kept in a
 * folder that only its owner reads. The authority stays, so that phones trust it once; the certificate is made anew when the
 * machine's addresses change or it is about to end.
 */
export async function servingCertificate(dir: string, addresses: readonly string[], now = new Date()): Promise<ServingCertificate> {
  mkdirSync(dir, { recursive: true, mode: 0o700 });
  const authority = kept(dir, 'authority') ?? keep(dir, 'authority', await newAuthority(now));
  const before = kept(dir, 'server');
  const leaf =
    before && stillGood(before.cert, authority.cert, addresses, now)
      ? before
      : keep(dir, 'server', await newLeaf(authority, addresses, now));
  return { ...leaf, authority: authority.cert };
}

function kept(dir: string, name: string): Pair | undefined {
  const [key, cert] = [join(dir, `${name}.key`), join(dir, `${name}.crt`)];
  return existsSync(key) && existsSync(cert) ? { key: readFileSync(key, 'utf8'), cert: readFileSync(cert, 'utf8') } : undefined;
}

function keep(dir: string, name: string, pair: Pair): Pair {
  writeFileSync(join(dir, `${name}.key`), pair.key, { mode: 0o600 });
  writeFileSync(join(dir, `${name}.crt`), pair.cert);
  return pair;
}

function stillGood(cert: string, authority: string, addresses: readonly string[], now: Date): boolean {
  const read = new X509Certificate(cert);
  const ends = new Date(read.validTo).getTime() - now.getTime();
  return (
    ends > RENEW_DAYS * DAY_MS &&
    addresses.every((a) => read.checkIP(a) !== undefined) &&
    read.verify(new X509Certificate(authority).publicKey)
  );
}

async function newAuthority(now: Date): Promise<Pair> {
  const made = await generate([{ name: 'commonName', value: `Vectrum at ${hostname()}` }], {
    keySize: WEAKEST_BITS,
    algorithm: 'sha256',
    notBeforeDate: now,
    notAfterDate: new Date(now.getTime() + AUTHORITY_YEARS * 365 * DAY_MS),
    extensions: [
      { name: 'basicConstraints', cA: true, critical: true },
      { name: 'keyUsage', keyCertSign: true, cRLSign: true, critical: true },
    ],
  });
  return { key: made.private, cert: made.cert };
}

async function newLeaf(authority: Pair, addresses: readonly string[], now: Date): Promise<Pair> {
  const made = await generate([{ name: 'commonName', value: hostname() }], {
    keySize: WEAKEST_BITS,
    algorithm: 'sha256',
    notBeforeDate: new Date(now.getTime() - DAY_MS),
    notAfterDate: new Date(now.getTime() + LEAF_DAYS * DAY_MS),
    ca: authority,
    extensions: [
      { name: 'basicConstraints', cA: false },
      { name: 'keyUsage', digitalSignature: true, keyEncipherment: true, critical: true },
      { name: 'extKeyUsage', serverAuth: true },
      {
        name: 'subjectAltName',
        altNames: [{ type: 2, value: 'localhost' }, { type: 2, value: hostname() }, ...addresses.map((ip) => ({ type: 7 as const, ip }))],
      },
    ],
  });
  return { key: made.private, cert: made.cert };
}
