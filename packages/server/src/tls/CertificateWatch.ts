import { X509Certificate } from 'node:crypto';
import { type Certificate, TLS } from './workshopCertificate.js';

/** How often the certificate is looked at while the server runs, ms. */
const EVERY_MS = 86_400_000;
/** One that was given and ends within so many days is told of. */
const SOON_DAYS = 14;
const DAY_MS = 86_400_000;

/** What a server takes another certificate with, without being started again. */
interface Shows {
  setSecureContext(options: typeof TLS & { readonly key: string; readonly cert: string }): void;
}

/** What is wrong with a certificate, and what to do; null for one that is good for a while. */
export function certificateFault(cert: string, now: number): string | null {
  const until = new Date(new X509Certificate(cert).validTo);
  const day = until.toISOString().slice(0, 10);
  if (until.getTime() < now) {
    return `The server’s certificate expired on ${day}, and browsers warn of it. Replace its files: Fettle uses the new certificate within a day.`;
  }
  if (until.getTime() < now + SOON_DAYS * DAY_MS) {
    return `The server’s certificate expires on ${day}. Replace its files: Fettle uses the new certificate within a day.`;
  }
  return null;
}

/** Looks at the certificate once a day: takes up a new one without a restart, and says when it ends. */
export class CertificateWatch {
  private shown: Certificate;
  private readonly read: () => Certificate | Promise<Certificate>;
  private readonly say: (what: string) => void;
  private timer: NodeJS.Timeout | null = null;
  /** What is wrong with it, for the page as well; null for nothing. */
  fault: string | null = null;

  /**
   * @param shown what the server began with
   * @param read reads it again: from the files that were given, or made anew where it is about to end
   * @param say tells who looks after the machine
   */
  constructor(shown: Certificate, read: () => Certificate | Promise<Certificate>, say: (what: string) => void) {
    this.shown = shown;
    this.read = read;
    this.say = say;
  }

  /** Looks now, and every day from now on. */
  async start(server: Shows): Promise<void> {
    await this.look(server);
    this.timer = setInterval(() => void this.look(server), EVERY_MS).unref();
  }

  async look(server: Shows): Promise<void> {
    try {
      const now = await this.read();
      if (now.cert !== this.shown.cert) {
        server.setSecureContext({ ...TLS, key: now.key, cert: now.cert });
        if (now.authority !== this.shown.authority)
          this.say('The workshop’s certificate is new: trust it on every device.');
        this.shown = now;
      }
    } catch (error) {
      // What is shown at the moment goes on being shown.
      this.say(`The certificate cannot be read again: ${(error as Error).message}`);
    }
    // One of the workshop's own is made anew long before it ends.
    this.fault = this.shown.authority === null ? certificateFault(this.shown.cert, Date.now()) : null;
    if (this.fault !== null) this.say(this.fault);
  }

  close(): void {
    if (this.timer) clearInterval(this.timer);
  }
}
