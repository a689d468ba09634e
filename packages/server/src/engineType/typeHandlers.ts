import { Reply } from '../wire/Reply.js';
import type { HandlersOf } from '../wire/serve.js';
import type { TypeService } from './typeService.js';

type TypeNames = 'listTypes' | 'getType' | 'typeRevisions' | 'putType' | 'archiveType';

/** The library of engine types. */
export function typeHandlers(types: TypeService): HandlersOf<TypeNames> {
  return {
    listTypes: ({ query }) => types.list(query),
    getType: ({ path }) => types.get(path.id),
    typeRevisions: ({ path, query }) => types.revisions(path.id, query),
    putType: async ({ path, body: { revision, by, type } }) =>
      new Reply(revision === 0 ? 201 : 200, await types.put(path.id, revision, by, type)),
    archiveType: ({ path, body }) => types.setArchived(path.id, body.archived, body.by),
  };
}
