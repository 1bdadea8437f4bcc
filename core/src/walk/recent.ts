/** Answers that were asked for last, at most so many of them; the one that was not asked for longest goes first. */
export class Recent<V extends object | number> {
  private readonly kept = new Map<string, V>();

  constructor(private readonly most: number) {}

  /** The answer to a question, worked out where it is not kept. */
  get(question: string, work: () => V): V {
    const answer = this.known(question) ?? work();
    this.keep(question, answer);
    return answer;
  }

  /** The answer to a question where it is kept. */
  known(question: string): V | undefined {
    return this.kept.get(question);
  }

  keep(question: string, answer: V): void {
    // A map keeps the order in which its keys were put there: what is asked for comes last.
    this.kept.delete(question);
    this.kept.set(question, answer);
    for (const oldest of this.kept.keys()) {
      if (this.kept.size <= this.most) break;
      this.kept.delete(oldest);
    }
  }
}
