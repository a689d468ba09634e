import type { Database } from '../database/Database.js';
import type { HandlersOf } from '../wire/serve.js';
import { buildsOf } from './buildsOf.js';

/** What the workshop knows from its engines. */
export function historyHandlers(database: Database): HandlersOf<'listBuilds'> {
  return {
    listBuilds: ({ query }) => buildsOf(database, query.serial),
  };
}
