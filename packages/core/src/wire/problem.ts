import { z } from 'zod';

/** Problem details (RFC 9457). */
export const problemSchema = z.object({
  type: z.string().describe('What kind of problem; explained on the API page.'),
  title: z.string(),
  status: z.int(),
  detail: z.string().describe('What is wrong here and what would be right.'),
  errors: z.array(z.strictObject({ path: z.string(), message: z.string() })).optional(),
});
export type Problem = z.infer<typeof problemSchema>;
