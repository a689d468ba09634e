import { z } from 'zod';
import { sizeBandSchema } from '../measure/lengthSchema.js';

/** What is stamped, scratched or dabbed on a part. */
export const markSchema = z.string().trim().min(1, 'enter at least one character').max(12);

/** A mark with the sizes it stands for. */
export const markedBandSchema = z
  .strictObject({ mark: markSchema, ...sizeBandSchema.shape })
  .refine(({ low, high }) => low <= high, { path: ['low'], error: 'low is above high; swap them' });
