import { type ChildProcess, spawn } from 'node:child_process';

/** Starts the built server on a database, without the demo. @param env what it is told beside that @returns it, once it is ready */
export function builtServer(
  url: string,
  port: number,
  env: Readonly<Record<string, string>> = {},
): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['packages/server/dist/main.js'], {
    env: {
      ...process.env,
      NODE_ENV: 'production',
      DATABASE_URL: url,
      FETTLE_PORT: String(port),
      FETTLE_DEMO: 'no',
      FETTLE_LOG: 'error',
      ...env,
    },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
  return new Promise((resolve, reject) => {
    child.on('message', () => resolve(child));
    child.on('exit', (code) => reject(new Error(`the server ended with ${code}; build it first: npm run types`)));
  });
}
