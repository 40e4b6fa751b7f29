/** Best of `times` runs, in ms: the run that the machine disturbed least. */
export function best(times, act) {
  let least = Infinity;
  for (let i = 0; i < times; i += 1) {
    const from = performance.now();
    act();
    least = Math.min(least, performance.now() - from);
  }
  return least;
}

export const ratio = (value, base) => (value / base).toFixed(2);
export const row = (...cells) => process.stdout.write(`${cells.map((cell, i) => String(cell).padEnd(i === 0 ? 46 : 16)).join('')}\n`);
