import { Reply } from '../wire/Reply.js';
import type { HandlersOf } from '../wire/serve.js';
import type { ReadingService } from './readingService.js';

/** Readings, one by one under their client-made ids. */
export function readingHandlers(readings: ReadingService): HandlersOf<'putReading'> {
  return {
    putReading: async ({ path, body }) => {
      const { reading, made } = await readings.save(path.id, path.reading, body);
      return new Reply(made ? 201 : 200, reading);
    },
  };
}
