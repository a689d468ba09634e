import { X509Certificate } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { isIP } from 'node:net';
import { join } from 'node:path';
import { generate } from 'selfsigned';

/** What a server shows, and where it comes from. */
export interface Certificate {
  readonly key: string;
  readonly cert: string;
  /** The certificate of the workshop that signed it, for other devices to trust; null for one that was given. */
  readonly authority: string | null;
}

const DAY_MS = 86_400_000;
/** An authority of the workshop's own is good for ten years; a certificate for no longer than browsers take one for. */
const AUTHORITY_DAYS = 3650;
const SERVER_DAYS = 390;
/** One that ends so soon is made anew at the next start. */
const RENEW_DAYS = 30;

const NAMES = { authority: 'authority', server: 'server' } as const;

function files(folder: string, name: string) {
  return { key: join(folder, `${name}.key`), cert: join(folder, `${name}.crt`) };
}

function read(folder: string, name: string): { key: string; cert: string } | null {
  const at = files(folder, name);
  if (!existsSync(at.key) || !existsSync(at.cert)) return null;
  return { key: readFileSync(at.key, 'utf8'), cert: readFileSync(at.cert, 'utf8') };
}

/** Keeps a pair; each file is whole or not there, and only its owner reads the key. */
function keep(folder: string, name: string, { key, cert }: { key: string; cert: string }): void {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const at = files(folder, name);
  for (const [file, text] of [
    [at.key, key],
    [at.cert, cert],
  ] as const) {
    writeFileSync(`${file}.making`, text, { mode: 0o600 });
    renameSync(`${file}.making`, file);
  }
}

function until(days: number): { notBeforeDate: Date; notAfterDate: Date } {
  // Clocks of phones differ: it counts from yesterday.
  return { notBeforeDate: new Date(Date.now() - DAY_MS), notAfterDate: new Date(Date.now() + days * DAY_MS) };
}

async function authorityIn(folder: string): Promise<{ key: string; cert: string }> {
  const known = read(folder, NAMES.authority);
  if (known && Date.parse(new X509Certificate(known.cert).validTo) > Date.now() + SERVER_DAYS * DAY_MS) return known;
  const made = await generate([{ name: 'commonName', value: 'Fettle of this workshop' }], {
    ...until(AUTHORITY_DAYS),
    keyType: 'ec',
    curve: 'P-256',
    algorithm: 'sha256',
    extensions: [
      { name: 'basicConstraints', cA: true, pathLenConstraint: 0, critical: true },
      { name: 'keyUsage', keyCertSign: true, cRLSign: true, critical: true },
    ],
  });
  const pair = { key: made.private, cert: made.cert };
  keep(folder, NAMES.authority, pair);
  return pair;
}

/** Whether a certificate is signed by the authority, lasts, and names every host. */
function isGood(cert: string, authority: string, hosts: readonly string[]): boolean {
  const parsed = new X509Certificate(cert);
  const lasts = Date.parse(parsed.validTo) > Date.now() + RENEW_DAYS * DAY_MS;
  const names = hosts.every((host) => (isIP(host) ? parsed.checkIP(host) : parsed.checkHost(host)) !== undefined);
  return lasts && names && parsed.verify(new X509Certificate(authority).publicKey);
}

/**
 * A certificate of the workshop's own: an authority that devices are told once to trust, and a certificate for the names and addresses of
 * this machine, made anew when they change or it is about to end.
 *
 * @param folder where both are kept, readable by their owner only
 * @param hosts names and addresses that it is to be good for
 */
export async function workshopCertificate(folder: string, hosts: readonly string[]): Promise<Certificate> {
  const authority = await authorityIn(folder);
  const known = read(folder, NAMES.server);
  if (known && isGood(known.cert, authority.cert, hosts)) return { ...known, authority: authority.cert };
  const made = await generate([{ name: 'commonName', value: hosts[0] ?? 'localhost' }], {
    ...until(SERVER_DAYS),
    keyType: 'ec',
    curve: 'P-256',
    algorithm: 'sha256',
    ca: authority,
    extensions: [
      { name: 'basicConstraints', cA: false, critical: true },
      { name: 'keyUsage', digitalSignature: true, critical: true },
      { name: 'extKeyUsage', serverAuth: true },
      {
        name: 'subjectAltName',
        altNames: hosts.map((host) => (isIP(host) ? { type: 7, ip: host } : { type: 2, value: host })),
      },
    ],
  });
  const pair = { key: made.private, cert: made.cert };
  keep(folder, NAMES.server, pair);
  return { ...pair, authority: authority.cert };
}

/** A certificate that was given. @throws Error where a file cannot be read, or they do not belong together */
export function givenCertificate(certFile: string, keyFile: string): Certificate {
  const cert = readFileSync(certFile, 'utf8');
  const key = readFileSync(keyFile, 'utf8');
  return { key, cert, authority: null };
}

/** The fingerprint by which one sees that it is the right authority: SHA-256, as devices show it. */
export function fingerprint(cert: string): string {
  return new X509Certificate(cert).fingerprint256;
}
