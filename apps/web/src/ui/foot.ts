/** Height in pixels of every bar that lies at the foot of the screen now. */
const feet = new Map<Element, number>();

function show(): void {
  const { style } = document.documentElement;
  if (feet.size === 0) style.removeProperty('--foot');
  else style.setProperty('--foot', `${Math.max(...feet.values())}px`);
}

/** The ref of a bar at the foot of the screen: messages are shown above it, not over what it offers. */
export function atFoot(bar: HTMLElement | null): (() => void) | undefined {
  if (bar === null) return undefined;
  const measure = (): void => {
    feet.set(bar, bar.offsetHeight);
    show();
  };
  const sizes = new ResizeObserver(measure);
  sizes.observe(bar);
  measure();
  return () => {
    sizes.disconnect();
    feet.delete(bar);
    show();
  };
}
