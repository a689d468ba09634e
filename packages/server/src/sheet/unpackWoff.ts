import { inflateSync } from 'node:zlib';

const SIGNATURE = 0x774f4646;
const HEAD_BYTES = 44;
const ENTRY_BYTES = 20;
const SFNT_HEAD_BYTES = 12;
const SFNT_ENTRY_BYTES = 16;

const padded = (length: number) => (length + 3) & ~3;

/**
 * The font within a WOFF file (W3C, WOFF File Format 1.0, sections 3 to 5): the same tables, not compressed. What reads WOFF by itself
 * inflates every table anew for every document.
 *
 * @throws Error where the bytes are no WOFF file
 */
export function unpackWoff(woff: Buffer): Buffer {
  if (woff.length < HEAD_BYTES || woff.readUInt32BE(0) !== SIGNATURE) throw new Error('these bytes are no WOFF font');
  const flavor = woff.readUInt32BE(4);
  const count = woff.readUInt16BE(12);
  const tables = Array.from({ length: count }, (_, nth) => {
    const at = HEAD_BYTES + nth * ENTRY_BYTES;
    const [offset, packed, length] = [woff.readUInt32BE(at + 4), woff.readUInt32BE(at + 8), woff.readUInt32BE(at + 12)];
    const bytes = woff.subarray(offset, offset + packed);
    const data = packed === length ? bytes : inflateSync(bytes, { maxOutputLength: length });
    return { tag: woff.readUInt32BE(at), checksum: woff.readUInt32BE(at + 16), data };
  });
  const power = Math.floor(Math.log2(count));
  const head = Buffer.alloc(SFNT_HEAD_BYTES + count * SFNT_ENTRY_BYTES);
  head.writeUInt32BE(flavor, 0);
  head.writeUInt16BE(count, 4);
  head.writeUInt16BE(2 ** power * SFNT_ENTRY_BYTES, 6);
  head.writeUInt16BE(power, 8);
  head.writeUInt16BE((count - 2 ** power) * SFNT_ENTRY_BYTES, 10);
  let offset = head.length;
  for (const [nth, { tag, checksum, data }] of tables.entries()) {
    const at = SFNT_HEAD_BYTES + nth * SFNT_ENTRY_BYTES;
    head.writeUInt32BE(tag, at);
    head.writeUInt32BE(checksum, at + 4);
    head.writeUInt32BE(offset, at + 8);
    head.writeUInt32BE(data.length, at + 12);
    offset += padded(data.length);
  }
  return Buffer.concat([head, ...tables.map(({ data }) => Buffer.concat([data], padded(data.length)))]);
}
