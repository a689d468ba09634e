import type { CERTIFICATE_TYPES } from '@fettle/core';

/** What each kind of file begins with: a file is what it says that it is, or it is not taken. */
const BEGINS: Readonly<Record<(typeof CERTIFICATE_TYPES)[number], readonly number[]>> = {
  'application/pdf': [0x25, 0x50, 0x44, 0x46, 0x2d],
  'image/png': [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a],
  'image/jpeg': [0xff, 0xd8, 0xff],
};

/** True if some bytes begin as a file of their type does. */
export function isCertificate(type: (typeof CERTIFICATE_TYPES)[number], data: Buffer): boolean {
  const start = BEGINS[type];
  return data.subarray(0, start.length).equals(Buffer.from(start));
}
