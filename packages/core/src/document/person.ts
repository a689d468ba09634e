import { z } from 'zod';

/** A name typed once per device; who did it is kept with every change. */
export const personSchema = z.string().trim().min(1, 'enter your name').max(60, 'at most 60 characters');
