/**
 * Lets the sound of a media element be heard up to a moment, on the clock of the sound itself. What draws the screen may come late
 * (a slow machine, a page in the background); what is cut out is not heard for that, and no end of a span clicks.
 */
export interface SoundGate {
  /** The sound is heard from now on: for so many ms by the clock on the wall, or until somebody says otherwise. */
  open(forMs: number | null): void;
}

/** As in the files that are made (see the render's fades). */
const FADE_S = 0.01;
/** What the clocks of picture and sound may differ by before the moment is set anew. */
const DRIFT_S = 0.01;

let shared: AudioContext | null = null;

/** The page's one clock of sound; null where there is none. A page that nobody has touched yet has it stand still. */
function clockOfSound(): AudioContext | null {
  if (typeof AudioContext === 'undefined') return null;
  shared ??= new AudioContext({ latencyHint: 'interactive' });
  return shared;
}

/** Has the sound pass a gate, for as long as the element lives. Null where the browser has no such thing: it is then heard as it comes. */
export function gateOf(element: HTMLMediaElement): SoundGate | null {
  const context = clockOfSound();
  if (context === null) return null;
  const gate = context.createGain();
  gate.gain.value = 0;
  context.createMediaElementSource(element).connect(gate).connect(context.destination);
  return gateOn(context, gate.gain);
}

/** A gate by itself: how loud, on whose clock. It is shut to begin with. */
export const gateOn = (context: Pick<BaseAudioContext, 'currentTime'>, gain: AudioParam): SoundGate => new Gate(context, gain);

/** After somebody's click: the clock of sound runs. */
export const wakeSound = (): void => void clockOfSound()?.resume();

class Gate implements SoundGate {
  /** When it is shut, by the context's clock. */
  private shutAt = -Infinity;
  constructor(
    private readonly context: Pick<BaseAudioContext, 'currentTime'>,
    private readonly gain: AudioParam,
  ) {}

  open(forMs: number | null): void {
    const now = this.context.currentTime;
    const shutAt = forMs === null ? Infinity : now + forMs / 1_000;
    if (shutAt === this.shutAt || Math.abs(shutAt - this.shutAt) < DRIFT_S) return;
    const isShut = this.shutAt - FADE_S <= now;
    this.shutAt = shutAt;
    this.gain.cancelScheduledValues(now);
    this.gain.setValueAtTime(isShut ? 0 : 1, now);
    if (isShut) this.gain.linearRampToValueAtTime(1, now + FADE_S);
    if (shutAt === Infinity) return;
    this.gain.setValueAtTime(1, Math.max(now + FADE_S, shutAt - FADE_S));
    this.gain.linearRampToValueAtTime(0, Math.max(now + 2 * FADE_S, shutAt));
  }
}
