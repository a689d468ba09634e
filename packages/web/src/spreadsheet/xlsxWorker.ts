import { readXlsx } from './readXlsx.js';

/** What a file came to, or how far it is. */
export type XlsxAnswer =
  | { readonly kind: 'progress'; readonly share: number }
  | { readonly kind: 'read'; readonly cells: string[][] }
  | { readonly kind: 'fault'; readonly message: string };

const answer = (message: XlsxAnswer) => postMessage(message);

addEventListener('message', ({ data }: MessageEvent<Uint8Array<ArrayBuffer>>) => {
  readXlsx(data, (share) => answer({ kind: 'progress', share })).then(
    (cells) => answer({ kind: 'read', cells }),
    (error: Error) => answer({ kind: 'fault', message: error.message }),
  );
});
