import { SHAPES } from '@sift-reel/core';
import type { ChannelView, RenderForm } from '../../app/api.js';

type Asked = RenderForm['shape'];
const ASKED: readonly Asked[] = [...SHAPES, 'sound'];
type Platform = Pick<ChannelView['platform'], 'id' | 'name' | 'shapes' | 'loudness' | 'truePeak'>;

/** A file that can be asked for. The platform is named where another one of the client's plays the same shape at another loudness. */
export interface AskedFile {
  readonly shape: Asked;
  readonly platform: Platform | null;
}

/** Each shape once; once for each loudness, where the platforms of a client's channels differ. @param channels of one client, by their order */
export function askedFiles(channels: readonly { readonly platform: Platform }[]): AskedFile[] {
  return ASKED.flatMap((shape): AskedFile[] => {
    const levels: Platform[] = [];
    for (const { platform } of channels) {
      const takes = shape === 'sound' || platform.shapes.includes(shape);
      const isKnown = levels.some(({ loudness, truePeak }) => loudness === platform.loudness && truePeak === platform.truePeak);
      if (takes && !isKnown) levels.push(platform);
    }
    return levels.length < 2 ? [{ shape, platform: null }] : levels.map((platform) => ({ shape, platform }));
  });
}
