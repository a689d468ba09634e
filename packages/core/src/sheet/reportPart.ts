import { z } from 'zod';
import { documentPart } from '../document/documentPart.js';

const wordsSchema = z.string().trim().max(1000, 'at most 1000 characters');

/** What the workshop says to the customer in its own words; no figure of it stands on the build sheet. */
export const reportPart = documentPart({
  members: {
    report: z.strictObject({
      refused: wordsSchema.describe('What was refused, by whom it may be, and why; empty: nothing noted.'),
      words: wordsSchema.describe('Other notes for the customer.'),
    }),
  },
  since: 8,
  blank: () => ({ report: { refused: '', words: '' } }),
});
