import { layOut, type LayOutRequest, type Proposal } from '@sift-reel/core';

/** Lays shorts out; an agency's eight weeks take a second. */
export function layOutShorts(request: LayOutRequest): Proposal {
  return layOut(request);
}
