import { z } from 'zod';

/** What a block, a cap or a rod is made of. */
export const materialSchema = z.enum(['iron', 'aluminium', 'steel', 'unknown']);
export type Material = z.infer<typeof materialSchema>;
