/** How students get their group: the members of each group in a row of their own, and each student's group (-1: none) and place in its row. */
export class Table {
  readonly width: number;
  readonly members: Int32Array;
  readonly sizes: Int32Array;
  readonly groupOf: Int32Array;
  private readonly placeOf: Int32Array;

  constructor(
    readonly groupCount: number,
    count: number,
    width: number,
  ) {
    this.width = width;
    this.members = new Int32Array(groupCount * width);
    this.sizes = new Int32Array(groupCount);
    this.groupOf = new Int32Array(count).fill(-1);
    this.placeOf = new Int32Array(count);
  }

  add(student: number, group: number): void {
    const place = group * this.width + this.sizes[group]!;
    this.members[place] = student;
    this.placeOf[student] = place;
    this.groupOf[student] = group;
    this.sizes[group]! += 1;
  }

  take(student: number): void {
    const group = this.groupOf[student]!;
    const last = group * this.width + this.sizes[group]! - 1;
    const moved = this.members[last]!;
    this.members[this.placeOf[student]!] = moved;
    this.placeOf[moved] = this.placeOf[student]!;
    this.sizes[group]! -= 1;
    this.groupOf[student] = -1;
  }

  copy(): Table {
    const next = new Table(this.groupCount, this.groupOf.length, this.width);
    next.members.set(this.members);
    next.sizes.set(this.sizes);
    next.groupOf.set(this.groupOf);
    next.placeOf.set(this.placeOf);
    return next;
  }
}
