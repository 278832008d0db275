/** Things 0 … size − 1 in groups that are merged; every group is known by one of its members (union–find, halving paths). */
export class DisjointSets {
  private readonly parent: number[] = [];

  constructor(size = 0) {
    for (let member = 0; member < size; member += 1) this.add();
  }

  /** A new member, alone in its group. @returns its number */
  add(): number {
    this.parent.push(this.parent.length);
    return this.parent.length - 1;
  }

  /** The member a group is known by. */
  find(member: number): number {
    let at = member;
    while (this.parent[at] !== at) {
      const above = this.parent[this.parent[at] as number] as number;
      this.parent[at] = above;
      at = above;
    }
    return at;
  }

  merge(a: number, b: number): void {
    this.parent[this.find(a)] = this.find(b);
  }

  /** Groups numbered 0 … count − 1 in the order of their first member. */
  number(): { of: Int32Array; count: number } {
    const numbers = new Int32Array(this.parent.length).fill(-1);
    let count = 0;
    const of = Int32Array.from(this.parent, (_, member) => {
      const root = this.find(member);
      if (numbers[root] === -1) numbers[root] = count++;
      return numbers[root] as number;
    });
    return { of, count };
  }
}
