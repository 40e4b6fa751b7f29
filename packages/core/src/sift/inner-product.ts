// The inner product is there twice: a loop that meets both kinds of array takes three times as long. Four steps at a time take
// half the time.

/** Inner product of `n` numbers of each from `i` and from `k`. */
export function innerProduct(a: Float32Array, i: number, b: Float32Array, k: number, n: number): number {
  let w = 0;
  let x = 0;
  let y = 0;
  let z = 0;
  let d = 0;
  for (; d + 3 < n; d += 4) {
    w += a[i + d]! * b[k + d]!;
    x += a[i + d + 1]! * b[k + d + 1]!;
    y += a[i + d + 2]! * b[k + d + 2]!;
    z += a[i + d + 3]! * b[k + d + 3]!;
  }
  for (; d < n; d += 1) w += a[i + d]! * b[k + d]!;
  return w + x + (y + z);
}

/** The same of numbers of double size, as sums are. */
export function innerProduct64(a: Float64Array, i: number, b: Float64Array, k: number, n: number): number {
  let w = 0;
  let x = 0;
  let y = 0;
  let z = 0;
  let d = 0;
  for (; d + 3 < n; d += 4) {
    w += a[i + d]! * b[k + d]!;
    x += a[i + d + 1]! * b[k + d + 1]!;
    y += a[i + d + 2]! * b[k + d + 2]!;
    z += a[i + d + 3]! * b[k + d + 3]!;
  }
  for (; d < n; d += 1) w += a[i + d]! * b[k + d]!;
  return w + x + (y + z);
}

/** Adds `n` numbers from `i` on, times `factor`, to the first ones of `into`. */
export function addTimes(a: Float32Array, i: number, factor: number, into: Float64Array, n: number): void {
  let d = 0;
  for (; d + 3 < n; d += 4) {
    into[d] = into[d]! + factor * a[i + d]!;
    into[d + 1] = into[d + 1]! + factor * a[i + d + 1]!;
    into[d + 2] = into[d + 2]! + factor * a[i + d + 2]!;
    into[d + 3] = into[d + 3]! + factor * a[i + d + 3]!;
  }
  for (; d < n; d += 1) into[d] = into[d]! + factor * a[i + d]!;
}
