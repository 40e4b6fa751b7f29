import { interestWeight, type InterestTerm, type SiftInput, spokenTag, type Vectors } from '@sift-reel/core';
import { Client, InterestRow } from '../clients/clients.models.js';

/** Interest terms that are compared by meaning: the weightiest. The others are found by their words. */
const MOST_BY_MEANING = 200;

/** What a client's recordings are judged by beside the brief. */
export type Wanted = Pick<SiftInput, 'clientTags' | 'weights'> & { readonly interest: readonly InterestTerm[] };

/** A client's tags, own weights and interest list, weightiest terms first. */
export async function readWanted(clientId: string): Promise<Wanted> {
  const client = await Client.findByPk(clientId);
  const rows = await InterestRow.findAll({ where: { clientId }, order: ['term'] });
  const interest = rows.map(({ term, volume, competition, change }) => ({ term, volume, competition, change }));
  const mostVolume = interest.reduce((most, { volume }) => Math.max(most, volume), 0);
  interest.sort((a, b) => interestWeight(b, mostVolume) - interestWeight(a, mostVolume));
  return { clientTags: client?.tags ?? [], weights: client?.signalWeights ?? null, interest };
}

/** Vectors of what is looked for. */
export type WantedVectors = Required<Pick<SiftInput, 'topicVectors' | 'tagVectors' | 'interestVectors'>>;

/** Vectors of all that is looked for; null where there is nothing of a kind. */
export async function embedWanted(
  topics: readonly string[],
  { clientTags, interest }: Wanted,
  embed: (texts: readonly string[]) => Promise<Vectors>,
): Promise<WantedVectors> {
  const vectorsOf = async (texts: readonly string[]): Promise<Vectors | null> => (texts.length === 0 ? null : embed(texts));
  return {
    topicVectors: await vectorsOf(topics),
    tagVectors: await vectorsOf(clientTags.map(spokenTag)),
    interestVectors: await vectorsOf(interest.slice(0, MOST_BY_MEANING).map(({ term }) => term)),
  };
}
