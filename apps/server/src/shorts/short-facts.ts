import { Injectable } from '@nestjs/common';

type PostCountsOf = (shortIds: readonly string[]) => Promise<ReadonlyMap<string, number>>;

/** What features built on shorts tell of them; shorts themselves know none of those features. */
@Injectable()
export class ShortFacts {
  private counts: PostCountsOf = () => Promise.resolve(new Map());

  providePostCounts(counts: PostCountsOf): void {
    this.counts = counts;
  }
  /** How many posts each of some shorts has; those with none are left out. */
  postCounts(shortIds: readonly string[]): Promise<ReadonlyMap<string, number>> {
    return shortIds.length === 0 ? Promise.resolve(new Map()) : this.counts(shortIds);
  }
}
