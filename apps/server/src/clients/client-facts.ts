import { Injectable } from '@nestjs/common';

type CountsOf = () => Promise<ReadonlyMap<string, number>>;
/** Told in the transaction of a change of a channel. May refuse it by throwing. */
type ChannelChanged = (channelId: string) => Promise<void>;

/** What features built on clients tell of them and hear from them; clients themselves know none of those features. */
@Injectable()
export class ClientFacts {
  private recordings: CountsOf = () => Promise.resolve(new Map());
  private readonly onChannel: ChannelChanged[] = [];

  provideRecordingCounts(counts: CountsOf): void {
    this.recordings = counts;
  }
  whenChannelChanges(act: ChannelChanged): void {
    this.onChannel.push(act);
  }

  recordingCounts(): Promise<ReadonlyMap<string, number>> {
    return this.recordings();
  }
  async channelChanged(channelId: string): Promise<void> {
    for (const act of this.onChannel) await act(channelId);
  }
}
