import { describe, expect, it } from 'vitest';
import { gateOn } from './sound-gate.js';

/** A volume that is set ahead, after the Web Audio API (W3C), 1.6: values at times, straight lines to times, what is cancelled. */
class Volume {
  private events: { at: number; value: number; line: boolean }[] = [];
  cancelScheduledValues(from: number): void {
    this.events = this.events.filter(({ at }) => at < from);
  }
  setValueAtTime(value: number, at: number): void {
    this.events.push({ at, value, line: false });
  }
  linearRampToValueAtTime(value: number, at: number): void {
    this.events.push({ at, value, line: true });
  }
  at(time: number): number {
    const [before, next] = [this.events.filter(({ at }) => at <= time).at(-1), this.events.find(({ at }) => at > time)];
    if (before === undefined) return 0;
    if (next?.line !== true) return before.value;
    return before.value + ((next.value - before.value) * (time - before.at)) / (next.at - before.at);
  }
}

describe('a gate in the sound', () => {
  const made = () => {
    const [clock, volume] = [{ currentTime: 0 }, new Volume()];
    return { clock, volume, gate: gateOn(clock, volume as unknown as AudioParam) };
  };
  /** The greatest step from one fiftieth of a millisecond to the next. */
  const roughest = (volume: Volume, fromS: number, toS: number): number => {
    let most = 0;
    for (let t = fromS; t < toS; t += 0.00002) most = Math.max(most, Math.abs(volume.at(t + 0.00002) - volume.at(t)));
    return most;
  };

  it('opens and shuts without a jump, at its moment, whoever comes late', () => {
    const { clock, volume, gate } = made();
    expect(volume.at(0)).toBe(0);
    gate.open(1_000);
    expect([0.011, 0.5, 0.989].map((t) => volume.at(t))).toEqual([1, 1, 1]);
    expect([1, 1.05, 30].map((t) => volume.at(t))).toEqual([0, 0, 0]);
    clock.currentTime = 1.4;
    gate.open(500);
    expect([1.39, 1.411, 1.889, 1.9].map((t) => volume.at(t))).toEqual([0, 1, 1, 0]);
    expect(roughest(volume, 0, 2)).toBeLessThan(0.0021);
  });
  it('takes the moment anew where the clocks have gone apart, and leaves it where they have not', () => {
    const { clock, volume, gate } = made();
    gate.open(1_000);
    clock.currentTime = 0.5;
    gate.open(494);
    expect([0.985, 1].map((t) => volume.at(t))).toEqual([1, 0]);
    gate.open(700); // it stood still for a while
    expect([1, 1.189, 1.2].map((t) => Math.round(volume.at(t)))).toEqual([1, 1, 0]);
    gate.open(null);
    expect(volume.at(60)).toBe(1);
    expect(roughest(volume, 0, 2)).toBeLessThan(0.0021);
  });
  it('shuts after it has opened where it is asked for less time than that takes', () => {
    const { volume, gate } = made();
    gate.open(4);
    expect([volume.at(0.01), volume.at(0.02)]).toEqual([1, 0]);
  });
});
