import { z } from 'zod';

/**
 * Places along a shaft that may take halves of their own: the thrust main, where halves can be flanged. A station elsewhere has no
 * place of its own, and takes the halves that fit everywhere.
 */
export const POSITIONS = ['thrust'] as const;
export const positionSchema = z.enum(POSITIONS);
export type Position = z.infer<typeof positionSchema>;
