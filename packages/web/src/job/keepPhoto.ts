import { LARGEST_PHOTO, PHOTO_TYPES } from '@fettle/core';
import { base64Of } from '../base/base64Of.js';
import { newId } from '../base/newId.js';
import { tell } from '../wire/tell.js';

/** The longer side of a picture that is kept, px: enough to see an oil hole. */
const LONGER_SIDE = 1600;
const MOST_MB = 1;

/**
 * Makes a picture small enough and keeps it on the server.
 *
 * @returns its id
 * @throws Error for what is no picture, or is too large all the same; an `AskFault` where the server does not take it
 */
export async function keepPhoto(job: string, by: string, file: File): Promise<string> {
  if (!file.type.startsWith('image/'))
    throw new Error(`“${file.name}” is not a photo: choose a JPEG, PNG or WebP file.`);
  const { default: imageCompression } = await import('browser-image-compression');
  const small = await imageCompression(file, {
    maxSizeMB: MOST_MB,
    maxWidthOrHeight: LONGER_SIDE,
    // Its worker would be fetched from elsewhere.
    useWebWorker: false,
    fileType: 'image/jpeg',
  }).catch((cause: unknown) => {
    // What it throws is the browser's event, which says nothing.
    const message = `“${file.name}” cannot be read as a picture: it is damaged, or of a kind that this browser does not open. Take it again, as JPEG or PNG.`;
    throw new Error(message, { cause });
  });
  const type = PHOTO_TYPES.find((one) => one === small.type);
  if (!type) throw new Error(`${small.type} photos are not accepted: choose a JPEG, PNG or WebP file.`);
  if (small.size > LARGEST_PHOTO) throw new Error('Photo over 5 MB even when reduced. Crop it first.');
  const id = newId();
  await tell('putPhoto', { id: job, photo: id, body: { by, type, data: await base64Of(small) } });
  return id;
}
