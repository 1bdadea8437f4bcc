const SIDES = 6;

/**
 * The room that is left in a box, as the largest empty cuboids that lie along its axes, which may overlap (empty maximal spaces, Lai and
 * Chan 1997). Those in which nothing that is still to come would fit are let go.
 */
export class Spaces {
  /** How many there are. */
  count = 0;
  /** Six numbers each: near corner, far corner. */
  at = new Float64Array(SIDES * 64);
  private fresh = new Float64Array(SIDES * 64);

  /** Begins with an empty box. */
  begin(length: number, width: number, height: number): void {
    this.at.fill(0, 0, 3);
    this.at[3] = length;
    this.at[4] = width;
    this.at[5] = height;
    this.count = 1;
  }

  /** Begins with these, six numbers each. */
  reset(spaces: readonly number[]): void {
    if (spaces.length > this.at.length) this.at = new Float64Array(2 * spaces.length);
    this.at.set(spaces);
    this.count = spaces.length / SIDES;
  }

  /** Lets one go. The last one takes its number. */
  drop(index: number): void {
    this.count--;
    if (index < this.count) this.at.copyWithin(index * SIDES, this.count * SIDES, (this.count + 1) * SIDES);
  }

  /** Takes a cuboid out of the room. Spaces with a side shorter than `least` are not kept. O(spaces × those that it meets). */
  take(x1: number, y1: number, z1: number, x2: number, y2: number, z2: number, least: number): void {
    const { at } = this;
    let made = 0;
    for (let i = this.count - 1; i >= 0; i--) {
      const o = i * SIDES;
      const [a, b, c] = [at[o] as number, at[o + 1] as number, at[o + 2] as number];
      const [d, e, f] = [at[o + 3] as number, at[o + 4] as number, at[o + 5] as number];
      if (x1 >= d || x2 <= a || y1 >= e || y2 <= b || z1 >= f || z2 <= c) continue;
      this.room(made + SIDES);
      if (x1 - a >= least) made = this.make(made, a, b, c, x1, e, f);
      if (d - x2 >= least) made = this.make(made, x2, b, c, d, e, f);
      if (y1 - b >= least) made = this.make(made, a, b, c, d, y1, f);
      if (e - y2 >= least) made = this.make(made, a, y2, c, d, e, f);
      if (z1 - c >= least) made = this.make(made, a, b, c, d, e, z1);
      if (f - z2 >= least) made = this.make(made, a, b, z2, d, e, f);
      this.drop(i);
    }
    this.keepLargest(made);
  }

  private make(n: number, a: number, b: number, c: number, d: number, e: number, f: number): number {
    const { fresh } = this;
    const o = n * SIDES;
    fresh[o] = a;
    fresh[o + 1] = b;
    fresh[o + 2] = c;
    fresh[o + 3] = d;
    fresh[o + 4] = e;
    fresh[o + 5] = f;
    return n + 1;
  }

  /** Adds the new ones that lie in no other. An old one never lies in a new one, since each new one lay in an old one. */
  private keepLargest(made: number): void {
    const { fresh } = this;
    if ((this.count + made) * SIDES > this.at.length) this.at = grown(this.at, (this.count + made) * SIDES);
    const old = this.count;
    for (let i = 0; i < made; i++) {
      let isInside = false;
      for (let j = 0; j < made && !isInside; j++)
        isInside = i !== j && inside(fresh, i * SIDES, fresh, j * SIDES) && !(j > i && inside(fresh, j * SIDES, fresh, i * SIDES));
      for (let j = 0; j < old && !isInside; j++) isInside = inside(fresh, i * SIDES, this.at, j * SIDES);
      if (isInside) continue;
      this.at.set(fresh.subarray(i * SIDES, (i + 1) * SIDES), this.count * SIDES);
      this.count++;
    }
  }

  private room(made: number): void {
    if (made * SIDES > this.fresh.length) this.fresh = grown(this.fresh, made * SIDES);
  }
}

function inside(a: Float64Array, i: number, b: Float64Array, j: number): boolean {
  return (
    (a[i] as number) >= (b[j] as number) &&
    (a[i + 1] as number) >= (b[j + 1] as number) &&
    (a[i + 2] as number) >= (b[j + 2] as number) &&
    (a[i + 3] as number) <= (b[j + 3] as number) &&
    (a[i + 4] as number) <= (b[j + 4] as number) &&
    (a[i + 5] as number) <= (b[j + 5] as number)
  );
}

function grown(list: Float64Array, least: number): Float64Array<ArrayBuffer> {
  const larger = new Float64Array(Math.max(least, 2 * list.length));
  larger.set(list);
  return larger;
}
