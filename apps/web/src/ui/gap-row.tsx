import type { ReactNode } from 'react';

/** The place of rows of a long table that are not drawn. */
export function GapRow({ px }: { px: number }): ReactNode {
  return px <= 0 ? null : (
    <tr aria-hidden="true">
      <td style={{ height: px, padding: 0 }} />
    </tr>
  );
}
