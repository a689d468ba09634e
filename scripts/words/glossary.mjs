// The words that Fettle does not say to its users, and what it says instead. Names in documents, files and code may differ: see CONTRIBUTING.md.

/**
 * One row a word: how it is found, what to say, and, where the word has another meaning too, what is allowed. `only` names the folder where the
 * rule holds.
 */
export const GLOSSARY = [
  { never: /\bjobs?\b/iu, say: 'engine', only: 'packages/web/' },
  { never: /\bhalves\b/iu, say: 'shells', except: /halves the bearing area|in halves|has no halves/u },
  { never: /\b(upper|lower|grooved|plain|flanged|thinner|lugged|wrong|single) half\b/iu, say: 'shell' },
  { never: /\bdrawers?\b/iu, say: 'stock', except: /^drawer\.(csv|xlsx)$/u },
  { never: /\b(on|off) (the|a) bench(es)?\b/iu, say: 'open, closed' },
  { never: /\baim(s|ed)?\b/iu, say: 'target' },
  { never: /\blets? (it |them )?go\b/iu, say: 'unlock' },
  { never: /\bforbid(s|den)?\b/iu, say: 'rule out' },
  { never: /\bas many as\b/iu, say: 'unlimited' },
  { never: /\bput together\b/iu, say: 'assemble' },
  { never: /\bbelieved?\b/iu, say: 'confirmed' },
  { never: /\bholds? no more\b/iu, say: 'out of date' },
  { never: /\bschools?\b/iu, say: 'method' },
  { never: /\bin doubt\b/iu, say: 'suspect' },
  { never: /\boff sheet\b/iu, say: 'out of limits' },
  { never: /\bchanged places\b/iu, say: 'swapped' },
  { never: /\btak(e|en|es|ing) (it |them |that |this )?back\b|\btook (it |a \w+ )?back\b/iu, say: 'undo' },
  { never: /\btak(e|en|es|ing) (it |them )?(out|away)\b/iu, say: 'remove' },
  { never: /\b(bring|brought) (\w+ )?in\b/iu, say: 'import' },
  { never: /\b(bring|brought) (it |an engine )?back\b/iu, say: 'reopen, or restore' },
  { never: /\blets? (it |a device )?(in|out)\b/iu, say: 'register, remove' },
  { never: /\banew\b/iu, say: 'again' },
  { never: /\b(is|are|was|were|be) told\b|\btold (that|once|of)\b/iu, say: 'show, or say' },
  { never: /\bsomebody\b|\bwhoever\b/iu, say: 'someone, or the person' },
  { never: /\ball the same\b/iu, say: 'anyway' },
  { never: /\bwhat it comes to\b/iu, say: 'result' },
  { never: /\b(is|are) asked for\b/iu, say: 'required' },
];

/** A string with two such words, to see that they are found. */
export const SAMPLE = { path: 'packages/web/src/sample.tsx', text: 'const view = <p>Halves in the drawer</p>;' };

/**
 * The words of the glossary that a string uses and should not.
 *
 * @param {{ path: string, words: string }} string
 * @returns {{ word: string, say: string }[]}
 */
export function neverSaid({ path, words }) {
  return GLOSSARY.flatMap(({ never, say, except, only = '' }) => {
    const found = path.startsWith(only) && !except?.test(words) ? never.exec(words) : null;
    return found ? [{ word: found[0], say }] : [];
  });
}
