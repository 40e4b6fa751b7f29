/** Numbers spread evenly over 0 to 1, the same every time (van der Corput's sequence). */
export function evenly(i: number, base: number): number {
  let [value, unit, rest] = [0, 1 / base, i];
  for (; rest > 0; rest = Math.floor(rest / base), unit /= base) value += (rest % base) * unit;
  return value;
}
