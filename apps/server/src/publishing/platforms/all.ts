import { FERNPOST } from './fernpost.js';
import { HEARTHSIDE } from './hearthside.js';
import { LOOPLINE } from './loopline.js';
import { NORTHGATE } from './northgate.js';
import type { PostingPlatform } from './platform.js';
import { TIDEWIRE } from './tidewire.js';

/** Every platform that Sift Reel knows how to speak to. Which of them an installation may, its configuration says. */
export const PLATFORMS: ReadonlyMap<string, PostingPlatform> = new Map(
  [FERNPOST, HEARTHSIDE, LOOPLINE, NORTHGATE, TIDEWIRE].map((platform) => [platform.name, platform]),
);
