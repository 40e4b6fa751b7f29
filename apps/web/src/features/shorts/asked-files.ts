import { loudnessLevels, type LoudPlatform, SHAPES } from '@sift-reel/core';
import type { RenderForm } from '../../app/api.js';

type Asked = RenderForm['shape'];
const ASKED: readonly Asked[] = [...SHAPES, 'sound'];
type Platform = LoudPlatform & { readonly id: string; readonly name: string };

/** A file that can be asked for. The platform is named where another one of the client's plays the same shape at another loudness. */
export interface AskedFile {
  readonly shape: Asked;
  readonly platform: Platform | null;
}

/** What can be asked for of several clients at once: a platform is named where every one of them has a channel on it. */
export function askedOfAll(clientIds: readonly string[], channels: readonly { readonly clientId: string; readonly platform: Platform }[]): AskedFile[] {
  const on = (clientId: string, id: string): boolean => channels.some((one) => one.clientId === clientId && one.platform.id === id);
  return askedFiles(channels.filter(({ clientId, platform }) => clientId === clientIds[0] && clientIds.every((other) => on(other, platform.id))));
}

/** Each shape once; once for each loudness, where the platforms of a client's channels differ. @param channels of one client, by their order */
export function askedFiles(channels: readonly { readonly platform: Platform }[]): AskedFile[] {
  const platforms = channels.map(({ platform }) => platform);
  return ASKED.flatMap((shape): AskedFile[] => {
    const levels = loudnessLevels(platforms, shape);
    return levels.length < 2 ? [{ shape, platform: null }] : levels.map((platform) => ({ shape, platform }));
  });
}
