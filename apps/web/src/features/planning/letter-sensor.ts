import type { Activators, SensorInstance, SensorProps } from '@dnd-kit/core';

export interface LetterOptions {
  /** It was picked up. @param letGo stops listening, for when the board goes away under it */
  readonly onPicked: (letGo: () => void) => void;
  /** A key while something is held: its code, from the very next key on. @returns whether it meant anything */
  readonly onKey: (code: string) => boolean;
  /** It is put down where the keys have brought it. */
  readonly onPut: () => void;
}

const PUT = new Set(['KeyP', 'Enter', 'Space']);
const BACK = new Set(['Escape', 'Tab']);

/**
 * Picks up with M, wherever a keyboard has that letter; Enter and the space go on opening what is focused. It listens from
 * the moment of picking up: the library's own sensor of keys begins a little later, and what a quick hand types until the
 * board is drawn again would be lost.
 */
export class LetterSensor implements SensorInstance {
  readonly autoScrollEnabled = false;

  static activators: Activators<LetterOptions> = [
    {
      eventName: 'onKeyDown',
      handler: ({ nativeEvent: event }: { nativeEvent: KeyboardEvent }, _options, { active }) => {
        if (event.key.toLowerCase() !== 'm' || event.ctrlKey || event.metaKey || event.altKey) return false;
        if (event.target !== (active.activatorNode.current ?? active.node.current)) return false;
        event.preventDefault();
        return true;
      },
    },
  ];

  private readonly letter: string;

  constructor(private readonly props: SensorProps<LetterOptions>) {
    this.letter = (props.event as KeyboardEvent).code;
    props.options.onPicked(() => this.leave());
    props.onStart({ x: 0, y: 0 });
    document.addEventListener('keydown', this.listen);
    document.addEventListener('visibilitychange', this.cancel);
    window.addEventListener('resize', this.cancel);
  }

  private readonly listen = (event: KeyboardEvent): void => {
    // The M that picked it up, and those that a key held down sends after it.
    if (event.code === this.letter) event.preventDefault();
    else if (PUT.has(event.code)) {
      event.preventDefault();
      this.leave();
      this.props.options.onPut();
      this.props.onEnd();
    } else if (BACK.has(event.code)) {
      event.preventDefault();
      this.cancel();
    } else if (this.props.options.onKey(event.code)) event.preventDefault();
  };

  private readonly cancel = (): void => {
    this.leave();
    this.props.onCancel();
  };

  private leave(): void {
    document.removeEventListener('keydown', this.listen);
    document.removeEventListener('visibilitychange', this.cancel);
    window.removeEventListener('resize', this.cancel);
  }
}
