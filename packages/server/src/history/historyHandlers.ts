import type { EndpointName } from '@fettle/core';
import type { Database } from '../database/Database.js';
import type { HandlersOf } from '../wire/serve.js';
import { buildsOf } from './buildsOf.js';
import { KnownEngines } from './knownEngines.js';
import { KnownService } from './knownService.js';

type HistoryNames = Extract<EndpointName, 'listBuilds' | 'leaveOut' | `known${string}`>;

/** What the workshop knows from its engines. */
export function historyHandlers(database: Database): HandlersOf<HistoryNames> {
  const known = new KnownService(database);
  const engines = new KnownEngines(database);
  return {
    listBuilds: ({ query }) => buildsOf(database, query.serial),
    knownScope: () => known.scope(),
    knownOffsets: ({ query }) => known.offsets(query),
    knownMarks: ({ query }) => known.marks(query),
    knownWalls: ({ query }) => known.walls(query),
    knownUse: ({ query }) => known.use(query),
    knownReaders: ({ query }) => known.readers(query),
    knownTrust: ({ query }) => known.trust(query),
    knownEngines: ({ query }) => engines.list(query),
    leaveOut: ({ path, body: { by, reason } }) => engines.leaveOut(path.id, by, reason),
  };
}
