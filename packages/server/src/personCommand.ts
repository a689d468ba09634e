import { ROLES, type Role, roleWords } from '@fettle/core';
import { PeopleService } from './access/peopleService.js';
import { openWorkshop } from './openWorkshop.js';
import { ProblemError } from './problem/problem.js';

/** Exit status for what cannot be done as it was asked. */
const REFUSED = 2;
const LONGEST_NAME = 60;

const USAGE = `Usage: npm run -s fettle -- person add NAME owner|fitter|stores|reader
       npm run -s fettle -- person reset NAME
       npm run -s fettle -- person list
`;

/** What is said where somebody has a password for the first time. */
function told(name: string, password: string): string {
  return `${name} signs in with the password ${password} and sets one of their own then.\n`;
}

async function run(people: PeopleService, words: readonly string[]): Promise<string | null> {
  const [command, name = '', role = ''] = words;
  if (command === 'list' && words.length === 1) {
    const all = await people.list();
    if (all.length === 0) return 'Nobody has an account yet.\n';
    const widest = Math.max(...all.map((person) => person.name.length));
    return all
      .map((person) => {
        const state = person.retiredAt ? 'disabled' : person.lockedUntil ? 'locked for now' : '';
        return `${person.name.padEnd(widest)}  ${person.role.padEnd(6)}  ${state}`.trimEnd();
      })
      .join('\n')
      .concat('\n');
  }
  const isName = name.trim() !== '' && name.length <= LONGEST_NAME;
  if (command === 'add' && words.length === 3 && isName && ROLES.includes(role as Role)) {
    if ((await people.count()) === 0 && role !== 'owner') {
      throw new ProblemError('invalid-request', `The first account is the owner’s, who ${roleWords('owner')}.`);
    }
    return told(name, (await people.add(name, role as Role, 'command line')).password);
  }
  if (command === 'reset' && words.length === 2 && isName) {
    const person = await people.byName(name);
    if (!person) throw new ProblemError('not-found', `“${name}” has no account. See person list.`);
    return told(person.name, (await people.reset(person.id, 'command line')).password);
  }
  return null;
}

const url = process.env.DATABASE_URL;
if (!url) throw new Error('DATABASE_URL is not set; use npm run fettle -- person');
const database = await openWorkshop(url);
try {
  const said = await run(new PeopleService(database), process.argv.slice(2));
  if (said === null) {
    process.stderr.write(USAGE);
    process.exitCode = REFUSED;
  } else process.stdout.write(said);
} catch (error) {
  if (!(error instanceof ProblemError)) throw error;
  process.stderr.write(`fettle: ${error.message}\n`);
  process.exitCode = REFUSED;
} finally {
  await database.destroy();
}
