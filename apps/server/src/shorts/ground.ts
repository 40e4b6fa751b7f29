import type { GroundTexts } from '@sift-reel/core';
import type { Client } from '../clients/clients.models.js';
import type { Recording } from '../recordings/recordings.models.js';
import { baseCopy } from './short-views.js';
import type { Short } from './shorts.models.js';

/** What stands on the ground of a short's picture; null beneath a picture of the recording. */
export const groundOf = (short: Short, recording: Pick<Recording, 'title'>, client: Pick<Client, 'name'>, pictured: boolean): GroundTexts | null =>
  pictured ? null : { title: baseCopy(short).title, credits: [recording.title, client.name] };
