import type { Shape } from './types.js';

/** What of a platform matters for how loud its files are: LUFS, and dBTP at most. */
export interface LoudPlatform {
  readonly shapes: readonly Shape[];
  readonly loudness: number;
  readonly truePeak: number;
}

/** Sound alone fits every platform. */
export const takesShape = ({ shapes }: Pick<LoudPlatform, 'shapes'>, shape: Shape | 'sound'): boolean => shape === 'sound' || shapes.includes(shape);

/** Of the platforms that take a shape, in their order, the first of each loudness. */
export function loudnessLevels<P extends LoudPlatform>(platforms: readonly P[], shape: Shape | 'sound'): P[] {
  const levels: P[] = [];
  for (const one of platforms)
    if (takesShape(one, shape) && !levels.some(({ loudness, truePeak }) => loudness === one.loudness && truePeak === one.truePeak)) levels.push(one);
  return levels;
}
