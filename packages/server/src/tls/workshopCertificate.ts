import 'reflect-metadata';
import { webcrypto, X509Certificate } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import type { ServerOptions } from 'node:https';
import { BlockList, isIP } from 'node:net';
import { networkInterfaces } from 'node:os';
import { join } from 'node:path';
import { AsnConvert } from '@peculiar/asn1-schema';
import {
  GeneralName,
  GeneralSubtree,
  GeneralSubtrees,
  id_ce_nameConstraints,
  NameConstraints,
} from '@peculiar/asn1-x509';
import * as x509 from '@peculiar/x509';

x509.cryptoProvider.set(webcrypto as Crypto);

/** What a server shows, and where it comes from. */
export interface Certificate {
  readonly key: string;
  readonly cert: string;
  /** The certificate of the workshop that signed it, for other devices to trust; null for one that was given. */
  readonly authority: string | null;
}

/**
 * What is spoken over TLS: 1.3, and of 1.2 only what encrypts and authenticates at once with keys that end with the connection. No CBC.
 */
export const TLS = {
  minVersion: 'TLSv1.2',
  honorCipherOrder: true,
  ciphers: [
    'TLS_AES_256_GCM_SHA384',
    'TLS_CHACHA20_POLY1305_SHA256',
    'TLS_AES_128_GCM_SHA256',
    'ECDHE-ECDSA-AES256-GCM-SHA384',
    'ECDHE-RSA-AES256-GCM-SHA384',
    'ECDHE-ECDSA-CHACHA20-POLY1305',
    'ECDHE-RSA-CHACHA20-POLY1305',
    'ECDHE-ECDSA-AES128-GCM-SHA256',
    'ECDHE-RSA-AES128-GCM-SHA256',
  ].join(':'),
} as const satisfies ServerOptions;

const DAY_MS = 86_400_000;
/** An authority of the workshop's own is good for ten years; a certificate for no longer than browsers take one for. */
const AUTHORITY_DAYS = 3650;
const SERVER_DAYS = 390;
/** One that ends so soon is made anew. */
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

const CURVE = { name: 'ECDSA', namedCurve: 'P-256' } as const;
const SIGNED_BY = { name: 'ECDSA', hash: 'SHA-256' } as const;

/** A private key as files hold it. */
async function pemOf(key: CryptoKey): Promise<string> {
  return x509.PemConverter.encode(await webcrypto.subtle.exportKey('pkcs8', key), 'PRIVATE KEY');
}

function keyIn(pem: string): Promise<CryptoKey> {
  return webcrypto.subtle.importKey('pkcs8', x509.PemConverter.decodeFirst(pem), CURVE, true, [
    'sign',
  ]) as Promise<CryptoKey>;
}

/** Makes a certificate with a key of its own. @param by who signs it; null for an authority, which signs itself */
async function made(
  name: string,
  days: number,
  extensions: x509.Extension[],
  by: { key: string; cert: string } | null,
): Promise<{ key: string; cert: string }> {
  const keys = (await webcrypto.subtle.generateKey(CURVE, true, ['sign', 'verify'])) as CryptoKeyPair;
  const subject = [{ CN: [name] }];
  const what = {
    // Clocks of phones differ: it counts from yesterday.
    notBefore: new Date(Date.now() - DAY_MS),
    notAfter: new Date(Date.now() + days * DAY_MS),
    signingAlgorithm: SIGNED_BY,
    extensions,
  };
  const cert =
    by === null
      ? await x509.X509CertificateGenerator.createSelfSigned({ ...what, name: subject, keys })
      : await x509.X509CertificateGenerator.create({
          ...what,
          subject,
          issuer: new x509.X509Certificate(by.cert).subjectName,
          publicKey: keys.publicKey,
          signingKey: await keyIn(by.key),
        });
  return { key: await pemOf(keys.privateKey), cert: `${cert.toString('pem')}\n` };
}

/**
 * The network that an address of this machine lies in, as `192.0.2.0/24`: routers and systems give out another address of it now and then, and
 * devices need not trust another authority for that. An address that is none of this machine's, or lies in a very wide network, stands for itself.
 */
function networkOf(host: string): string {
  const version = isIP(host);
  const all = Object.values(networkInterfaces()).flatMap((addresses) => addresses ?? []);
  const own = all.find(({ address, internal }) => address === host && !internal);
  const prefix = Number(own?.cidr?.split('/')[1] ?? Number.NaN);
  const isNarrow = version === 4 ? prefix >= 16 : prefix >= 64;
  return `${host}/${isNarrow ? prefix : version === 4 ? 32 : 128}`;
}

/** What an authority may sign for: these names, the networks of these addresses, and nothing else (RFC 5280, 4.2.1.10). */
function constraintsTo(hosts: readonly string[]): x509.Extension {
  const base = (host: string) => (isIP(host) ? { iPAddress: networkOf(host) } : { dNSName: host });
  const permitted = hosts.map((host) => new GeneralSubtree({ base: new GeneralName(base(host)) }));
  const value = AsnConvert.serialize(new NameConstraints({ permittedSubtrees: new GeneralSubtrees(permitted) }));
  return new x509.Extension(id_ce_nameConstraints, true, value);
}

/** True if an authority may sign for these hosts, and not for anything there is. */
function isFor(authority: string, hosts: readonly string[]): boolean {
  const extension = new x509.X509Certificate(authority).getExtension(id_ce_nameConstraints);
  if (!extension) return false;
  const { permittedSubtrees = [] } = AsnConvert.parse(extension.value, NameConstraints);
  const names = new Set<string>();
  const networks = new BlockList();
  for (const { base } of permittedSubtrees) {
    if (base.dNSName !== undefined) names.add(base.dNSName);
    const [address = '', prefix = ''] = base.iPAddress?.split('/') ?? [];
    if (address !== '') networks.addSubnet(address, Number(prefix), isIP(address) === 4 ? 'ipv4' : 'ipv6');
  }
  return hosts.every((host) => {
    const version = isIP(host);
    return version === 0 ? names.has(host) : networks.check(host, version === 4 ? 'ipv4' : 'ipv6');
  });
}

/** The authority of a folder: the one that is there, or another where that ends too soon, or is for other names. */
async function authorityIn(folder: string, hosts: readonly string[]): Promise<{ key: string; cert: string }> {
  const known = read(folder, NAMES.authority);
  const lasts = known && Date.parse(new X509Certificate(known.cert).validTo) > Date.now() + SERVER_DAYS * DAY_MS;
  if (lasts && isFor(known.cert, hosts)) return known;
  const usages = x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign;
  const extensions = [
    new x509.BasicConstraintsExtension(true, 0, true),
    new x509.KeyUsagesExtension(usages, true),
    constraintsTo([...hosts].sort()),
  ];
  const pair = await made('Fettle of this workshop', AUTHORITY_DAYS, extensions, null);
  keep(folder, NAMES.authority, pair);
  return pair;
}

/** True if a certificate is signed by the authority, lasts, and names every host. */
function isGood(cert: string, authority: string, hosts: readonly string[]): boolean {
  const parsed = new X509Certificate(cert);
  const lasts = Date.parse(parsed.validTo) > Date.now() + RENEW_DAYS * DAY_MS;
  const names = hosts.every((host) => (isIP(host) ? parsed.checkIP(host) : parsed.checkHost(host)) !== undefined);
  return lasts && names && parsed.verify(new X509Certificate(authority).publicKey);
}

/**
 * A certificate of the workshop's own: an authority that devices are told once to trust, and that is good for the names of this machine and the
 * networks of its addresses only; and a certificate for them, made anew when they change or it is about to end. Where the machine gets another
 * name, or comes into another network, the authority is made anew as well, and devices are told to trust the new one.
 *
 * @param folder where both are kept, readable by their owner only
 * @param hosts names and addresses that it is to be good for
 */
export async function workshopCertificate(folder: string, hosts: readonly string[]): Promise<Certificate> {
  const authority = await authorityIn(folder, hosts);
  const known = read(folder, NAMES.server);
  if (known && isGood(known.cert, authority.cert, hosts)) return { ...known, authority: authority.cert };
  const names = hosts.map((value): x509.JsonGeneralName => ({ type: isIP(value) ? 'ip' : 'dns', value }));
  const extensions = [
    new x509.BasicConstraintsExtension(false, undefined, true),
    new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
    new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
    new x509.SubjectAlternativeNameExtension(names),
  ];
  // Its name stands in the list of names only: what checks the old place as well finds nothing there that the authority may not sign.
  const pair = await made('Fettle', SERVER_DAYS, extensions, authority);
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
