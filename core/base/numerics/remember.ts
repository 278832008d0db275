/**
 * A pure function that remembers its last answers: asked the same again, as screens do every second, it does not compute again.
 * @param ask of plain data: the question is told apart by its JSON
 * @param most answers kept, the oldest goes first
 */
export function remembering<Q, A>(ask: (question: Q) => A, most: number): (question: Q) => A {
  const known = new Map<string, A>();
  return (question) => {
    const key = JSON.stringify(question);
    const before = known.get(key);
    if (before !== undefined) return before;
    const answer = ask(question);
    known.set(key, answer);
    if (known.size > most) known.delete(known.keys().next().value as string);
    return answer;
  };
}
