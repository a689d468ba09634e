// npm run words: lists every string that a user can see, with its place; `comments` lists the comments, `--check` holds the strings against the glossary.

import { neverSaid, SAMPLE } from './words/glossary.mjs';
import { commentsOf, sources, stringsOf } from './words/listStrings.mjs';

/** With fewer strings than this the sources were not read as they are. */
const LEAST_STRINGS = 3000;

const [what = 'strings'] = process.argv.slice(2);
const listed = sources().flatMap(what === 'comments' ? commentsOf : stringsOf);

function check() {
  if (stringsOf(SAMPLE).flatMap(neverSaid).length !== 2) throw new Error('the glossary does not find what it should');
  if (listed.length < LEAST_STRINGS) throw new Error(`only ${listed.length} strings were found in the sources`);
  const faults = listed.flatMap((string) => neverSaid(string).map((fault) => ({ ...string, ...fault })));
  for (const { path, line, words, word, say } of faults) {
    console.error(`${path}:${line}: “${word}” in “${words.slice(0, 120)}”. Say: ${say}`);
  }
  console.log(`words: ${listed.length} strings, ${faults.length} against the glossary`);
  return faults.length === 0 ? 0 : 1;
}

if (what === '--check') process.exit(check());
for (const { path, line, words } of listed) console.log([path, line, words].join('\t'));
