/** An answer with a status of its own, or headers. */
export class Reply<Value> {
  readonly status: number;
  readonly value: Value;
  readonly headers: Readonly<Record<string, string>>;

  constructor(status: number, value: Value, headers: Readonly<Record<string, string>> = {}) {
    this.status = status;
    this.value = value;
    this.headers = headers;
  }
}
