import { reweigh, type Reweighed, type Weighable } from '@sift-reel/core';

export interface ReweighRequest {
  readonly id: number;
  readonly candidates: readonly Weighable[];
  readonly from: readonly number[];
  readonly to: readonly number[];
}
export interface ReweighReply {
  readonly id: number;
  readonly result: Reweighed;
}

self.onmessage = ({ data }: MessageEvent<ReweighRequest>) => {
  const reply: ReweighReply = { id: data.id, result: reweigh(data.candidates, data.from, data.to) };
  self.postMessage(reply);
};
