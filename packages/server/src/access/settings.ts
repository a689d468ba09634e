import { hostname, networkInterfaces } from 'node:os';

/** From where the server may be reached, and on what terms. */
export interface AccessSettings {
  /** True if one signs in here even before there is an account: the server is reached from other machines. */
  readonly mustSignIn: boolean;
  /** True if pages come over TLS, from this server or from a proxy before it. */
  readonly isSecure: boolean;
  /** Host names, without a port, that the server answers to. */
  readonly hosts: ReadonlySet<string>;
  /** Where other devices reach it; null where they cannot. */
  readonly origin: string | null;
  /** What the owner's account is made with at the first start; null where it cannot be made over the network. */
  readonly firstCode: string | null;
  /** True if a proxy on this machine stands before it, which says who asks. */
  readonly isBehindProxy: boolean;
}

const LOOPBACK: readonly string[] = ['127.0.0.1', 'localhost', '::1'];

/** True if an address to listen at is this machine's alone. */
export function isLoopback(host: string): boolean {
  return LOOPBACK.includes(host) || /^127\.\d+\.\d+\.\d+$/u.test(host);
}

/** The addresses of this machine in its networks; IPv4 first, as they are easier to read and to type. */
export function ownAddresses(): string[] {
  const all = Object.values(networkInterfaces()).flatMap((addresses) => addresses ?? []);
  const outside = all.filter(({ internal, address }) => !internal && !address.startsWith('fe80'));
  return [...outside]
    .sort((one, other) => (one.family === other.family ? 0 : one.family === 'IPv4' ? -1 : 1))
    .map(({ address }) => address);
}

/** Names under which this machine may be reached in its networks. */
export function ownNames(): string[] {
  const name = hostname().toLowerCase();
  return name === '' ? [] : [name, `${name}.local`];
}

/** A host as it stands in an address. */
export function inAddress(host: string): string {
  return host.includes(':') ? `[${host}]` : host;
}

export interface Wanted {
  /** Address to listen at. */
  readonly host: string;
  readonly port: number;
  /** More names that it answers to, with commas between. */
  readonly hosts?: string | undefined;
  /** Address that a proxy before it is reached at. */
  readonly origin?: string | undefined;
  readonly firstCode: string | null;
}

/**
 * The settings for an address to listen at: at this machine's own everything is as it was; beyond it one signs in, over TLS.
 *
 * @throws Error where the address of the proxy is none, or is not encrypted and leads beyond this machine
 */
export function accessSettings({ host, port, hosts = '', origin = '', firstCode }: Wanted): AccessSettings {
  const named = hosts
    .split(',')
    .map((name) => name.trim().toLowerCase())
    .filter((name) => name !== '');
  if (origin !== '') {
    const { protocol, hostname: public_, origin: whole } = URL.canParse(origin) ? new URL(origin) : new URL('none:');
    if (protocol !== 'https:' && protocol !== 'http:') {
      throw new Error(`FETTLE_ORIGIN is “${origin}”; enter the address of the proxy, such as https://fettle.workshop`);
    }
    const name = public_.replaceAll(/[[\]]/gu, '');
    if (protocol === 'http:' && !(isLoopback(name) && isLoopback(host))) {
      throw new Error(
        `FETTLE_ORIGIN is “${origin}”: passwords would cross the network unencrypted. Let the proxy speak TLS, and give its https:// address`,
      );
    }
    return {
      mustSignIn: true,
      isSecure: protocol === 'https:',
      hosts: new Set([name, ...LOOPBACK, ...named]),
      origin: whole,
      firstCode,
      isBehindProxy: true,
    };
  }
  const isHere = isLoopback(host);
  const isAny = host === '0.0.0.0' || host === '::';
  const own = isHere ? [] : isAny ? [...ownAddresses(), ...ownNames()] : [host.toLowerCase(), ...ownNames()];
  const outside = named[0] ?? (isAny ? (ownAddresses()[0] ?? '127.0.0.1') : host);
  return {
    mustSignIn: !isHere,
    isSecure: !isHere,
    hosts: new Set([...LOOPBACK, ...own, ...named]),
    origin: isHere ? null : `https://${inAddress(outside)}:${port}`,
    firstCode: isHere ? null : firstCode,
    isBehindProxy: false,
  };
}

/** As on this machine alone, before there is an account. */
export const ON_THIS_MACHINE: AccessSettings = accessSettings({ host: '127.0.0.1', port: 0, firstCode: null });
