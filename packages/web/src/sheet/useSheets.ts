import { type BuildSheet, type SignedSheet, signedContent } from '@fettle/core';
import { useState } from 'react';
import { useAppSelector } from '../base/store.js';
import type { OpenJob } from '../job/useJob.js';
import { api } from '../wire/api.js';
import { refusalInWords } from '../wire/ask.js';
import { tell } from '../wire/tell.js';

/** What the content of a signed sheet, hashed once more on this device, says of it. */
export type Verified = 'same' | 'differs' | 'cannot-tell';

/** SHA-256 of a text as hex digits; null where the browser does not offer it (over plain HTTP from elsewhere). */
async function sha256(text: string): Promise<string | null> {
  if (!globalThis.crypto?.subtle) return null;
  const digest = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(text));
  return [...new Uint8Array(digest)].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}

export interface SignedWithSheet extends SignedSheet {
  readonly sheet: BuildSheet;
}

export interface Sheets {
  /** The signed sheets, the last first; null while they are not known. */
  readonly signed: readonly SignedSheet[] | null;
  /** True if everything of this engine is on the server: only what is there can be signed. */
  readonly isAllSent: boolean;
  readonly sign: (by: string, reason: string) => Promise<boolean>;
  readonly fault: string | null;
  readonly open: (revision: number) => Promise<SignedWithSheet | null>;
  readonly verify: (one: SignedWithSheet) => Promise<Verified>;
}

/** The signed sheets of an engine: signing, reading and verifying them. */
export function useSheets(job: OpenJob): Sheets {
  const { data } = api.useListSheetsQuery({ id: job.id }, { skip: job.view === null });
  const isWaiting = useAppSelector((state) => state.saving.parcels.some((parcel) => parcel.jobId === job.id));
  const [fault, setFault] = useState<string | null>(null);
  return {
    signed: data ?? null,
    isAllSent: job.view !== null && !isWaiting,
    fault,
    sign: async (by, reason) => {
      setFault(null);
      try {
        const revision = (data?.[0]?.revision ?? 0) + 1;
        await tell('signSheet', { id: job.id, body: { by, seen: job.view!.revision, revision, reason } });
        return true;
      } catch (error) {
        setFault(refusalInWords(error));
        return false;
      }
    },
    open: async (revision) => {
      setFault(null);
      try {
        return await tell('getSheet', { id: job.id, revision });
      } catch (error) {
        setFault(refusalInWords(error));
        return null;
      }
    },
    verify: async ({ sheet, hash, ...signOff }) => {
      const own = await sha256(signedContent(sheet, signOff));
      if (own === null) return 'cannot-tell';
      return own === hash ? 'same' : 'differs';
    },
  };
}

/** The sheet that was signed last, to say whether the engine is still what was signed; null while none is known. */
export function useLastSigned(id: string, { signed }: Pick<Sheets, 'signed'>): SignedWithSheet | null {
  const revision = signed?.[0]?.revision;
  const { currentData } = api.useGetSheetQuery({ id, revision: revision ?? 0 }, { skip: revision === undefined });
  return currentData ?? null;
}
