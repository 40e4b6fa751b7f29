/** For a row and the version that a write of this window was made of, the version that the write left. */
const left = new Map<string, number>();
const MOST = 500;

/** Remembers a write of this window where nobody wrote between: it left the very next version. */
export function rememberWrite(id: string, made: number, version: number): void {
  if (version !== made + 1) return;
  left.set(`${id} ${made}`, version);
  for (const key of left.keys()) {
    if (left.size <= MOST) break;
    left.delete(key);
  }
}

/**
 * The version that a row has by what was written from this window alone since one saw it: what one did oneself is nobody else's
 * change. Where somebody else wrote, it stops before that, and the write is refused. For writes of a field that no other write
 * touches, as an undo after a later deed of the same row.
 */
export function ownVersion(id: string, seen: number): number {
  let version = seen;
  for (let next = left.get(`${id} ${version}`); next !== undefined; next = left.get(`${id} ${version}`)) version = next;
  return version;
}

export function forgetWrites(): void {
  left.clear();
}
