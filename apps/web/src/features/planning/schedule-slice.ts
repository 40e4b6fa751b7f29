import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { PlacementForm, PlacementView, PostMoveForm, ProposalView, ProposedMoveView } from '../../app/api.js';

/** What is in the producer's hand: a post from the board, or a short from the tray. */
export type Held = { readonly kind: 'post'; readonly postId: string } | { readonly kind: 'short'; readonly shortId: string };

/** A place under the keyboard's cursor: a channel and a day. */
export interface Cursor {
  readonly channelId: string;
  readonly date: string;
}

/** A proposal, with what was asked: so that it can be asked again, and otherwise. */
export interface Proposed extends ProposalView {
  readonly batchId: string | null;
  readonly asked: { readonly shortIds: string[]; readonly fromDate: string; readonly toDate: string };
  /** Placements that it was laid out around; they are among its own. */
  readonly kept: PlacementView[];
  /** Moves that it was laid out around likewise. */
  readonly keptMoves: ProposedMoveView[];
}

/** An answer joined with the placements and moves that were kept for it: what they are worth together, and what that can be at most. */
export function joined(answer: ProposalView, { kept, keptMoves }: Pick<Proposed, 'kept' | 'keptMoves'>): ProposalView {
  const worth = kept.reduce((sum, one) => sum + one.worth, 0) + keptMoves.reduce((sum, one) => sum + one.worth - one.worthBefore, 0);
  const moves = [...keptMoves, ...answer.moves].sort((a, b) => (a.at < b.at ? -1 : 1));
  const placements = [...kept, ...answer.placements].sort((a, b) => (a.at < b.at ? -1 : 1));
  return { ...answer, placements, moves, value: answer.value + worth, bound: answer.bound + worth };
}

/** What tells a place of a proposal from its others: a short goes to a channel once in it. */
export const placeKey = ({ shortId, channelId }: { readonly shortId: string; readonly channelId: string }): string => `${shortId} ${channelId}`;

const switched = (keys: readonly string[], key: string): string[] => (keys.includes(key) ? keys.filter((one) => one !== key) : [...keys, key]);

/** A placement as it is asked for and accepted. */
export function toPlacementForm({ shortId, channelId, date, minute, why }: PlacementView): PlacementForm {
  return { shortId, channelId, date, minute, why };
}

export function toMoveForm({ postId, channelId, date, minute, version }: ProposedMoveView): PostMoveForm {
  return { postId, channelId, date, minute, version };
}

/** What only the screen knows: what is held, where the cursor is, which posts are chosen, the proposal that waits to be accepted. */
export const scheduleSlice = createSlice({
  name: 'schedule',
  initialState: {
    held: null as Held | null,
    cursor: null as Cursor | null,
    chosen: [] as string[],
    proposal: null as Proposed | null,
    /** Places of the proposal that are not taken, and those that stay when it is asked for again, by `placeKey`. */
    leftOut: [] as string[],
    locked: [] as string[],
  },
  reducers: {
    pickedUp: (state, { payload }: PayloadAction<Held | null>) => {
      state.held = payload;
      if (payload === null) state.cursor = null;
    },
    cursorMoved: (state, { payload }: PayloadAction<Cursor | null>) => {
      state.cursor = payload;
    },
    toggled: (state, { payload }: PayloadAction<string>) => {
      state.chosen = switched(state.chosen, payload);
    },
    chose: (state, { payload }: PayloadAction<readonly string[]>) => {
      state.chosen = [...payload];
    },
    proposed: (state, { payload }: PayloadAction<Proposed | null>) => {
      state.proposal = payload;
      if (payload === null) [state.leftOut, state.locked] = [[], []];
    },
    leftOut: (state, { payload }: PayloadAction<string>) => {
      state.leftOut = switched(state.leftOut, payload);
    },
    locked: (state, { payload }: PayloadAction<string>) => {
      state.locked = switched(state.locked, payload);
    },
  },
});
export const { pickedUp, cursorMoved, toggled, chose, proposed, leftOut, locked } = scheduleSlice.actions;
