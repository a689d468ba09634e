import { execFileSync } from 'node:child_process';
import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:https';
import { type AddressInfo, BlockList } from 'node:net';
import { networkInterfaces, tmpdir } from 'node:os';
import { join } from 'node:path';
import { type ConnectionOptions, connect } from 'node:tls';
import { describe, expect, it } from 'vitest';
import { accessSettings } from '../access/settings.js';
import { CertificateWatch, certificateFault } from './CertificateWatch.js';
import { givenCertificate, TLS, workshopCertificate } from './workshopCertificate.js';

const HOSTS = ['localhost', '127.0.0.1', '::1', 'bench.test'];
const folder = () => mkdtempSync(join(tmpdir(), 'fettle-tls-'));

function openssl(...args: string[]): string {
  return execFileSync('openssl', args, { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });
}

/** Connects; the certificate that is shown and the cipher that is agreed on. */
function shake(port: number, options: ConnectionOptions): Promise<{ cert: string; cipher: string }> {
  return new Promise((resolve, reject) => {
    const socket = connect({ port, host: '127.0.0.1', servername: 'localhost', ...options }, () => {
      const cert = socket.getPeerX509Certificate()!.toString();
      resolve({ cert, cipher: socket.getCipher().standardName });
      socket.destroy();
    });
    socket.on('error', reject);
  });
}

async function serverWith(pair: { key: string; cert: string }) {
  const server = createServer({ ...TLS, ...pair }, (_, response) => response.end('well'));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return { server, port: (server.address() as AddressInfo).port };
}

describe('the workshop’s own authority', () => {
  it('is trusted for the names and addresses of this machine, by OpenSSL too, and for no others', async () => {
    const at = folder();
    const { cert, authority } = await workshopCertificate(at, HOSTS);
    const told = openssl('x509', '-in', join(at, 'authority.crt'), '-noout', '-text');
    expect(told).toContain('X509v3 Name Constraints: critical');
    expect(told).toContain('DNS:bench.test');
    expect(told).toContain('IP:127.0.0.1/255.255.255.255');
    expect(openssl('verify', '-CAfile', join(at, 'authority.crt'), join(at, 'server.crt'))).toContain('OK');
    expect(new X509Certificate(cert).verify(new X509Certificate(authority!).publicKey)).toBe(true);
    // Signed with the same key for another name: refused by whoever trusts it.
    const ext = join(at, 'other.ext');
    writeFileSync(ext, 'subjectAltName=DNS:elsewhere.test\nbasicConstraints=critical,CA:FALSE\n');
    openssl(
      'req',
      '-newkey',
      'ec',
      '-pkeyopt',
      'ec_paramgen_curve:P-256',
      '-nodes',
      '-keyout',
      join(at, 'o.key'),
      '-out',
      join(at, 'o.csr'),
      '-subj',
      '/O=Elsewhere',
    );
    openssl(
      'x509',
      '-req',
      '-in',
      join(at, 'o.csr'),
      '-CA',
      join(at, 'authority.crt'),
      '-CAkey',
      join(at, 'authority.key'),
      '-CAcreateserial',
      '-days',
      '2',
      '-extfile',
      ext,
      '-out',
      join(at, 'o.crt'),
    );
    expect(() => openssl('verify', '-CAfile', join(at, 'authority.crt'), join(at, 'o.crt'))).toThrow(
      'permitted subtree violation',
    );
  });

  it('stays while the names stay, and is made anew with other names', async () => {
    const at = folder();
    const first = await workshopCertificate(at, HOSTS);
    expect(await workshopCertificate(at, [...HOSTS].reverse())).toEqual(first);
    // Another address in the same network of this machine, as a router gives out: the authority is good for it already.
    const own = Object.values(networkInterfaces())
      .flatMap((addresses) => addresses ?? [])
      .find(({ family, internal, cidr }) => family === 'IPv4' && !internal && Number(cidr?.split('/')[1]) <= 30);
    if (own) {
      const withOwn = await workshopCertificate(at, [...HOSTS, own.address]);
      const network = new BlockList();
      network.addSubnet(own.address, Number(own.cidr!.split('/')[1]));
      const parts = own.address.split('.').map(Number);
      const neighbour = [...parts.slice(0, 3), parts[3]! ^ 1].join('.');
      expect(network.check(neighbour)).toBe(true);
      const moved = await workshopCertificate(at, [...HOSTS, neighbour]);
      expect(moved.authority).toBe(withOwn.authority);
      expect(new X509Certificate(moved.cert).checkIP(neighbour)).toBe(neighbour);
    }
    const other = await workshopCertificate(at, [...HOSTS, '192.0.2.7']);
    expect(other.authority).not.toBe(first.authority);
    expect(new X509Certificate(other.cert).checkIP('192.0.2.7')).toBe('192.0.2.7');
  });
});

describe('over TLS', () => {
  it('1.3 and 1.2 are spoken with authenticated encryption only', async () => {
    const { authority, ...pair } = await workshopCertificate(folder(), HOSTS);
    const { server, port } = await serverWith(pair);
    const ca = authority!;
    expect((await shake(port, { ca })).cipher).toMatch(/^TLS_(AES|CHACHA20)/u);
    const two = { ca, maxVersion: 'TLSv1.2' } as const;
    expect((await shake(port, two)).cipher).toMatch(/GCM|CHACHA20/u);
    for (const ciphers of ['ECDHE-ECDSA-AES128-SHA256', 'ECDHE-ECDSA-AES256-SHA', 'AES128-SHA']) {
      await expect(shake(port, { ...two, ciphers }), ciphers).rejects.toThrow();
    }
    await expect(shake(port, { ca, maxVersion: 'TLSv1.1', minVersion: 'TLSv1' })).rejects.toThrow();
    server.close();
  });

  it('a new certificate is shown without a restart, and one that ends is told of every day', async () => {
    const [one, two] = [folder(), folder()];
    const given = { cert: join(one, 'given.crt'), key: join(one, 'given.key') };
    const put = (days: string) => {
      openssl(
        'req',
        '-x509',
        '-newkey',
        'ec',
        '-pkeyopt',
        'ec_paramgen_curve:P-256',
        '-nodes',
        '-days',
        days,
        '-keyout',
        given.key,
        '-out',
        given.cert,
        '-subj',
        '/CN=localhost',
        '-addext',
        'subjectAltName=DNS:localhost',
      );
    };
    put('3');
    const first = givenCertificate(given.cert, given.key);
    const { server, port } = await serverWith(first);
    const said: string[] = [];
    const watch = new CertificateWatch(
      first,
      () => givenCertificate(given.cert, given.key),
      (what) => said.push(what),
    );
    await watch.look(server);
    await watch.look(server);
    expect(said).toHaveLength(2);
    expect(watch.fault).toMatch(/expires on \d{4}-/u);
    put('300');
    await watch.look(server);
    expect(watch.fault).toBeNull();
    const shown = await shake(port, { ca: readFileSync(given.cert, 'utf8') });
    expect(new X509Certificate(shown.cert).fingerprint256).toBe(
      new X509Certificate(readFileSync(given.cert)).fingerprint256,
    );
    // Files that do not belong together leave what is shown.
    writeFileSync(given.key, 'no key');
    writeFileSync(given.cert, (await workshopCertificate(two, HOSTS)).cert);
    await watch.look(server);
    expect(said.at(-1)).toContain('cannot be read again');
    expect((await shake(port, { rejectUnauthorized: false })).cert).toBe(shown.cert);
    expect(certificateFault(first.cert, Date.now() + 4 * 86_400_000)).toContain('expired on');
    server.close();
  });
});

describe('an address without TLS', () => {
  const firstCode = 'code';
  it('is taken from a proxy on this machine only', () => {
    for (const origin of ['http://fettle.workshop', 'http://192.0.2.7:8080']) {
      expect(() => accessSettings({ host: '127.0.0.1', port: 1, origin, firstCode }), origin).toThrow('unencrypted');
    }
    const beyond = { host: '0.0.0.0', port: 1, origin: 'http://localhost:8080', firstCode };
    expect(() => accessSettings(beyond)).toThrow('unencrypted');
    expect(accessSettings({ ...beyond, host: '127.0.0.1' })).toMatchObject({ isSecure: false, mustSignIn: true });
  });
});
