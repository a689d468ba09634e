import type { JobService } from '../job/jobService.js';
import { Reply } from '../wire/Reply.js';
import type { HandlersOf } from '../wire/serve.js';
import type { DrawerService } from './drawerService.js';
import type { KitService } from './kitService.js';

type DrawerNames =
  | 'listDrawer'
  | 'listPieces'
  | 'moveDrawer'
  | 'drawerHistory'
  | 'undoMovement'
  | 'listKits'
  | 'putKit'
  | 'deleteKit'
  | 'acceptTogether'
  | 'setFitted';

/** The workshop's halves, shared by the engines on the benches. */
export function drawerHandlers(drawer: DrawerService, kits: KitService, jobs: JobService): HandlersOf<DrawerNames> {
  return {
    listDrawer: ({ query }) => drawer.list(query.job ?? null),
    listPieces: ({ query }) => drawer.listPieces(query.job ?? null),
    moveDrawer: ({ body }) => drawer.move(body),
    drawerHistory: ({ query }) => drawer.history(query),
    undoMovement: ({ path, body }) => drawer.undo(path.id, body.by),
    listKits: () => kits.list(),
    putKit: async ({ path, body: { version, by, kit } }) =>
      new Reply(version === 0 ? 201 : 200, await kits.put(path.id, version, by, kit)),
    deleteKit: ({ path, query: { version, by } }) => kits.put(path.id, version, by, null),
    acceptTogether: ({ body }) => jobs.acceptTogether(body.by, body.jobs),
    setFitted: ({ path, body }) => drawer.setFitted(path.id, body.fitted, body.by),
  };
}
