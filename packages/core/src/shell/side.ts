import { z } from 'zod';

/** The side a half goes to: upper is the block (or rod) side, lower the cap side; `either` fits both. */
export const sideSchema = z.enum(['upper', 'lower', 'either']);
export type Side = z.infer<typeof sideSchema>;
