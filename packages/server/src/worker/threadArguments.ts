/** Node without `require` of modules; an older or a newer one that does not know the word has no need of it. */
const NO_REQUIRE = '--no-experimental-require-module';

/**
 * How Node runs the threads of a pool.
 *
 * A pool loads its worker with `require` first, and Node 20 ends the whole process where a thread is ended in the middle of that
 * (`v8::Module::IsGraphAsync`): a server that is stopped within its first second would not stop but die. An import can be ended at any time.
 *
 * @param at the address of the module that makes the pool: from the sources, TypeScript is read as it stands
 */
export function threadArguments(at: string): string[] {
  if (at.endsWith('.ts')) return ['--import', 'tsx', '--conditions=@fettle/source'];
  return process.allowedNodeEnvironmentFlags.has(NO_REQUIRE) ? [NO_REQUIRE] : [];
}
