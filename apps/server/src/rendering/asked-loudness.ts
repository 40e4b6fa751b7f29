import { ConflictException } from '@nestjs/common';
import { loudnessLevels, takesShape } from '@sift-reel/core';
import type { Channel, PlatformProfile } from '../clients/clients.models.js';
import { found } from '../identity/actor.js';
import { type Loudness, PLAYED_LOUDNESS, type RenderShape } from './render-plan.js';

const playedBy = ({ loudness, truePeak }: PlatformProfile): Loudness => ({ integrated: loudness, peak: truePeak });

/**
 * How loud files of a shape are to be for a client: what the platforms of its channels play at, where they take the shape, in the
 * order of the channels; what is common where none does.
 * @param channels of the client, by their order, with their platform profiles
 * @returns at least one, each once
 */
export function loudnessAsked(channels: readonly Channel[], shape: RenderShape): readonly Loudness[] {
  const asked = loudnessLevels(
    channels.map(({ platformProfile }) => platformProfile),
    shape,
  ).map(playedBy);
  return asked.length > 0 ? asked : [PLAYED_LOUDNESS];
}

/**
 * How loud a file is to be for one of the client's platforms.
 * @throws NotFoundException where no channel of the client is on it; ConflictException where it does not take the shape
 */
export function loudnessFor(channels: readonly Channel[], shape: RenderShape, platformProfileId: string): Loudness {
  const { platformProfile } = found(channels.find((one) => one.platformProfileId === platformProfileId) ?? null, 'platform profile of this client');
  if (!takesShape(platformProfile, shape)) throw new ConflictException(`${platformProfile.name} does not take files of this shape.`);
  return playedBy(platformProfile);
}
