/** How far every bar that lies at the foot of the screen reaches up now, in pixels. */
const feet = new Map<Element, number>();

function show(): void {
  const { style } = document.documentElement;
  if (feet.size === 0) style.removeProperty('--foot');
  else style.setProperty('--foot', `${Math.max(...feet.values())}px`);
}

/** The ref of a bar at the foot of the screen, or just above what lies there: messages are shown above it, not over what it offers. */
export function atFoot(bar: HTMLElement | null): (() => void) | undefined {
  if (bar === null) return undefined;
  const measure = (): void => {
    feet.set(bar, Math.max(0, Math.round(window.innerHeight - bar.getBoundingClientRect().top)));
    show();
  };
  const sizes = new ResizeObserver(measure);
  sizes.observe(bar);
  sizes.observe(document.documentElement);
  measure();
  return () => {
    sizes.disconnect();
    feet.delete(bar);
    show();
  };
}
