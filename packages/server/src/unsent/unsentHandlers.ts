import type { HandlersOf } from '../wire/serve.js';
import type { UnsentService } from './UnsentService.js';

/** What waits in browsers: each person hears of their own. */
export function unsentHandlers(unsent: UnsentService): HandlersOf<'tellUnsent' | 'listMissing' | 'forgetUnsent'> {
  return {
    tellUnsent: async ({ path, body }, { access }) => {
      await unsent.tell(access.person?.id ?? null, path.browser, body);
      return { noted: true };
    },
    listMissing: async ({ query }, { access }) => ({
      missing: [...(await unsent.missing(access.person?.id ?? null, query.browser))],
    }),
    forgetUnsent: async ({ path }, { access }) => {
      await unsent.forget(access.person?.id ?? null, path.browser);
      return { noted: true };
    },
  };
}
