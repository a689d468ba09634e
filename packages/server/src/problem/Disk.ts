import { statfs } from 'node:fs/promises';

/** With less than this free nothing is safe any more, bytes: PostgreSQL needs room for its log before it can write anything. */
const LEAST_BYTES = 32 * 2 ** 20;
/** That the database had no room counts for so long, unless something was kept since, ms. */
const REMEMBERED_MS = 60_000;

export const DISK_FULL = 'The server’s disk is full: nothing is saved. Free some space on it.';

/** True if there is room where the data lies. */
export class Disk {
  private readonly folder: string | null;
  private fullSince = 0;

  /** @param folder on the disk that the database writes to; null where that is another machine's */
  constructor(folder: string | null) {
    this.folder = folder;
  }

  /** The database said that it has no room. */
  wasFull(): void {
    this.fullSince = Date.now();
  }

  /** Something was kept. */
  hasRoom(): void {
    this.fullSince = 0;
  }

  async isFull(): Promise<boolean> {
    if (Date.now() - this.fullSince < REMEMBERED_MS) return true;
    if (this.folder === null) return false;
    const { bavail, bsize } = await statfs(this.folder);
    return bavail * bsize < LEAST_BYTES;
  }
}
