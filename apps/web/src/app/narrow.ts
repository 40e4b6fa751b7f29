import { useSyncExternalStore } from 'react';

/** Narrower than Tailwind's `md`: a phone. */
const NARROW = '(max-width: 767px)';

/** Whether the window is as narrow as a phone's; false where nothing can tell. */
export function useNarrow(): boolean {
  return useSyncExternalStore(
    (told) => {
      const query = (window.matchMedia as typeof window.matchMedia | undefined)?.(NARROW);
      query?.addEventListener('change', told);
      return () => query?.removeEventListener('change', told);
    },
    () => (window.matchMedia as typeof window.matchMedia | undefined)?.(NARROW).matches ?? false,
  );
}
