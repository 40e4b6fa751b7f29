import type { ReactNode } from 'react';

/** The time zones this browser knows, for inputs with `list="zones"`. */
export function ZoneOptions(): ReactNode {
  return (
    <datalist id="zones">
      {Intl.supportedValuesOf('timeZone').map((zone) => (
        <option key={zone} value={zone} />
      ))}
    </datalist>
  );
}
