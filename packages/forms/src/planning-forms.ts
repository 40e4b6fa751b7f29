import { NotBefore } from './checks.js';
import { Day, Flag, Id, OneOf, Parts, Text, TextList, Whole } from './fields.js';
import { SEEN, WindowForm } from './forms.js';

export class BatchForm {
  @Text({ min: 1, max: 80 }) name: string;
  @TextList({ format: 'uuid', maxItems: 500 }) shortIds: string[];
}

export class BatchChangeForm extends BatchForm {
  @Whole(SEEN) version: number;
}

export class PlacementForm {
  @Id() shortId: string;
  @Id() channelId: string;
  @Day() date: string;
  @Whole({ max: 1_439 }) minute: number;
  @Text({ max: 1_000 }) why: string;
}

export class StretchForm {
  @Day() fromDate: string;
  @NotBefore('fromDate', 'must not be before the first day') @Day() toDate: string;
}

/** A change of a channel that is tried before it is made; null where it stays as it is. */
export class WhatIfForm {
  @Id() channelId: string;
  @Whole({ min: 1, max: 24, nullable: true }) postsPerDay: number | null;
  @Whole({ min: 1, max: 168, nullable: true }) postsPerWeek: number | null;
  @Parts(() => WindowForm, { maxItems: 7, description: 'Windows besides those that it has' }) windows: WindowForm[];
  @Parts(() => StretchForm, { maxItems: 7, description: 'Days without posts besides those that it has' }) blackouts: StretchForm[];
}

export class LayOutForm {
  @TextList({ format: 'uuid', maxItems: 500 }) shortIds: string[];
  @Day() fromDate: string;
  @NotBefore('fromDate', 'must not be before the first day') @Day() toDate: string;
  @Parts(() => PlacementForm, { maxItems: 1_000, description: 'Placements of a proposal before that stay as they are' }) kept: PlacementForm[];
  @Parts(() => PostMoveForm, { maxItems: 500, optional: true, description: 'Moves of that proposal, made likewise' }) keptMoves?: PostMoveForm[];
  @Parts(() => WhatIfForm, { maxItems: 10, description: 'Changes that are tried, and not made' }) whatIf: WhatIfForm[];
}

export class AcceptForm {
  @Id({ nullable: true }) batchId: string | null;
  @Parts(() => PlacementForm, { maxItems: 1_000 }) placements: PlacementForm[];
  @Parts(() => TakenMoveForm, { maxItems: 500, optional: true, description: 'Posts that move with it' }) moves?: TakenMoveForm[];
}

/** A plan that was made elsewhere. */
export class PlanFileForm {
  @Text({ min: 1, max: 400_000, trim: 'none' }) csv: string;
  @Id({ nullable: true, description: 'Only of this client' }) clientId: string | null;
}

export class CalendarForm {
  @Text({ min: 1, max: 80, description: 'Whom it is for' }) name: string;
}

export class MovePostForm {
  @Id() channelId: string;
  @Day() date: string;
  @Whole({ max: 1_439 }) minute: number;
  @Whole(SEEN) version: number;
}

export class PostMoveForm extends MovePostForm {
  @Id() postId: string;
}

/** A move of a proposal that is accepted, with its reason. */
export class TakenMoveForm extends PostMoveForm {
  @Text({ max: 1_000 }) why: string;
}

/** Posts that move together: each is checked beside the others where they go. */
export class MovePostsForm {
  @Parts(() => PostMoveForm, { minItems: 1, maxItems: 500 }) moves: PostMoveForm[];
}

/** A post as it was seen. */
export class SeenPostForm {
  @Id() postId: string;
  @Whole(SEEN) version: number;
}

export class MovableForm {
  @Parts(() => SeenPostForm, { minItems: 1, maxItems: 500 }) posts: SeenPostForm[];
  @Flag({ description: 'Laying out may move them, or they stay' }) movable: boolean;
}

export class PostStateForm {
  @OneOf(['planned', 'posted', 'refused'], { description: '`refused` takes a mark back from a post that had been refused' })
  state: 'planned' | 'posted' | 'refused';
  @Whole(SEEN) version: number;
}
