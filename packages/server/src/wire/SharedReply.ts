import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import type { Request, Response } from 'express';
import { Reply } from './Reply.js';

const gzipped = promisify(gzip);
/** Bodies of fewer bytes are sent as they are, as elsewhere. */
const LEAST_GZIPPED = 1024;

/** An answer that many get at once: it is written out and compressed once for all of them. */
export class SharedReply<Value> extends Reply<Value> {
  private json: Buffer | null = null;
  private small: Promise<Buffer> | null = null;

  constructor(value: Value) {
    super(200, value);
  }

  async send(request: Request, response: Response): Promise<void> {
    this.json ??= Buffer.from(JSON.stringify(this.value), 'utf8');
    response.status(this.status).type('json').vary('Accept-Encoding');
    if (this.json.length < LEAST_GZIPPED || !request.acceptsEncodings('gzip')) {
      response.send(this.json);
      return;
    }
    this.small ??= gzipped(this.json);
    response.set('content-encoding', 'gzip').send(await this.small);
  }
}
