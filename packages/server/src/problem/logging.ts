import { type Logger, pino } from 'pino';

/** An error as it is logged: what went wrong and where, never what somebody sent. */
export function errorForLog(error: unknown): object {
  const { name, message, code, stack } = error as Error & { code?: string };
  return { type: name, message, ...(code === undefined ? {} : { code }), stack };
}

/** A request as it is logged: without what stands in its query, its headers and its body. */
export function requestForLog({ id, method, url }: { id?: unknown; method?: string; url?: string }): object {
  return { id, method, path: url?.split('?')[0] };
}

/** The server's log: no documents, no names, no secrets. */
export function serverLog(level: string): Logger {
  return pino({ level, serializers: { err: errorForLog } });
}
