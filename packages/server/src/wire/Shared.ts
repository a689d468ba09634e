/**
 * Work that many ask for at once, done once for all of them. Who asks while it is under way is not given that, which may be older than what they
 * have just done, but the next one, which begins when it ends: whatever they are told was read after they asked.
 */
export class Shared<Value> {
  private readonly work: (key: string) => Promise<Value>;
  private readonly running = new Map<string, Promise<Value>>();
  private readonly next = new Map<string, Promise<Value>>();

  constructor(work: (key: string) => Promise<Value>) {
    this.work = work;
  }

  ask(key: string): Promise<Value> {
    const running = this.running.get(key);
    if (!running) return this.begin(key);
    const known = this.next.get(key);
    if (known) return known;
    const begin = () => {
      this.next.delete(key);
      return this.begin(key);
    };
    const answer = running.then(begin, begin);
    this.next.set(key, answer);
    return answer;
  }

  private begin(key: string): Promise<Value> {
    const answer = this.work(key);
    this.running.set(key, answer);
    const over = () => {
      if (this.running.get(key) === answer) this.running.delete(key);
    };
    answer.then(over, over);
    return answer;
  }
}
