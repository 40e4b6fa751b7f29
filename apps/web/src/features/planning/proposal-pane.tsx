import { formatMinute } from '@sift-reel/core';
import { Lock, LockOpen } from 'lucide-react';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { api, type PlacementView, type PostView, type ProposedMoveView, type ScheduleView } from '../../app/api.js';
import { useAppDispatch, useAppSelector } from '../../app/store.js';
import { didSomething } from '../../app/undo.js';
import { Button, FormTrouble } from '../../ui/parts.js';
import { joined, leftOut, locked, placeKey, proposed, type Proposed, toMoveForm, toPlacementForm } from './schedule-slice.js';
import { WhatIf } from './what-if.js';
import { Worth } from './worth.js';
import { t } from '../../texts/texts.js';
import { formatDay } from '../../texts/formats.js';

interface ProposalPaneProps {
  view: ScheduleView;
  proposal: Proposed;
  /** Shows a day of it on the board. */
  onShow: (date: string) => void;
}

/**
 * The proposal beside the board on which it stands: what it is worth, and every placement and every refusal with its reason. Some
 * can be kept and the rest asked for again; what is ticked is written when it is accepted, whole.
 */
export function ProposalPane({ view, proposal, onShow }: ProposalPaneProps): ReactNode {
  const dispatch = useAppDispatch();
  const [accept, { error, isLoading }] = api.useAcceptPlanMutation();
  const [takeOff] = api.useTakeOffPostMutation();
  const [propose, again] = api.useProposePlanMutation();
  const { leftOut: left, locked: held } = useAppSelector((state) => state.schedule);
  const [asksWhatIf, setAsksWhatIf] = useState(false);
  const head = useRef<HTMLHeadingElement>(null);
  useEffect(() => head.current?.focus(), []);
  const titleOf = (id: string): string => view.shorts.find((short) => short.id === id)?.title ?? '';
  const channelOf = (id: string): string => view.channels.find((channel) => channel.id === id)?.name ?? '';
  const chosen = proposal.placements.filter((one) => !left.includes(placeKey(one)));
  const kept = proposal.placements.filter((one) => held.includes(placeKey(one)));
  const moving = proposal.moves.filter((one) => !left.includes(placeKey(one)));
  const askAgain = async (): Promise<void> => {
    // A place may be there because another post made room for it: what moves stays with what is kept.
    const around = { kept, keptMoves: moving };
    const answer = await propose({ ...proposal.asked, kept: kept.map(toPlacementForm), keptMoves: moving.map(toMoveForm), whatIf: [] }).unwrap();
    dispatch(proposed({ ...proposal, ...joined(answer, around), ...around }));
  };
  const close = (): void => {
    dispatch(proposed(null));
  };
  const submit = async (): Promise<void> => {
    const before = moving.map((move) => view.posts.find((post) => post.id === move.postId)!);
    const posts = await accept({
      batchId: proposal.batchId,
      placements: chosen.map(toPlacementForm),
      moves: moving.map((move) => ({ ...toMoveForm(move), why: move.why })),
    }).unwrap();
    close();
    const undo = async (): Promise<void> => {
      for (const post of posts.slice(moving.length).reverse()) await takeOff(post.id).unwrap();
      if (before.length > 0) await accept({ batchId: null, placements: [], moves: before.map((post, n) => toItsPlace(post, posts[n]!.version)) }).unwrap();
    };
    const counts = { count: chosen.length, moves: moving.length };
    didSomething(moving.length === 0 ? t('planning.placed-posts', counts) : t('planning.placed-and-moved', counts), undo);
  };
  const title = t('planning.proposed-plan-placements-without-a-place', { count: proposal.placements.length, unplaced: proposal.unplaced.length });
  return (
    <aside aria-label={title} className="flex min-h-0 flex-col border-r border-rule">
      <div className="border-b border-rule px-[14px] py-3">
        <h2 ref={head} tabIndex={-1} className="outline-none">
          {title}
        </h2>
        <Worth value={proposal.value} bound={proposal.bound} />
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto px-[14px]" data-testid="proposal">
        {proposal.placements.length === 0 && <p className="py-3">{t('planning.none-of-these-shorts-fits-into')}</p>}
        <ul>
          {proposal.placements.map((one) => (
            <Placement key={`${placeKey(one)} ${one.at}`} one={one} title={titleOf(one.shortId)} channel={channelOf(one.channelId)} onShow={onShow} />
          ))}
        </ul>
        {proposal.moves.length > 0 && (
          <>
            <h2 className="mt-4 mb-1">{t('planning.moves-for-it')}</h2>
            <ul>
              {proposal.moves.map((one) => (
                <Placement key={`${placeKey(one)} ${one.at}`} one={one} title={titleOf(one.shortId)} channel={channelOf(one.channelId)} onShow={onShow} />
              ))}
            </ul>
          </>
        )}
        {proposal.unplaced.length > 0 && (
          <>
            <h2 className="mt-4 mb-1">{t('planning.without-a-place')}</h2>
            <ul>
              {proposal.unplaced.map((one) => (
                <li key={placeKey(one)} className="border-b border-rule py-[6px]">
                  <b>{titleOf(one.shortId)}</b> <span className="text-[12px] text-soft">{channelOf(one.channelId)}</span>
                  <div className="text-[12px] text-madder-text">{one.detail}</div>
                </li>
              ))}
            </ul>
          </>
        )}
      </div>
      {asksWhatIf && (
        <div className="max-h-[45%] flex-none overflow-y-auto px-[14px] pb-3">
          <WhatIf view={view} proposal={proposal} />
        </div>
      )}
      <div className="border-t border-rule bg-sheet px-[14px] py-3">
        <FormTrouble error={error ?? again.error} safe={t('planning.nothing-was-written')} />
        <div className="flex flex-wrap gap-2">
          <Button aria-expanded={asksWhatIf} onClick={() => setAsksWhatIf(!asksWhatIf)}>
            {t('planning.what-if')}
          </Button>
          <Button
            disabled={kept.length === 0 || again.isLoading}
            title={t('planning.lock-a-place-first')}
            onClick={() => {
              askAgain().catch(() => undefined);
            }}
          >
            {t('planning.ask-again-keeping', { count: kept.length })}
          </Button>
          <Button onClick={close}>{t('planning.throw-the-proposal-away')}</Button>
          <Button
            tone="fill"
            disabled={chosen.length + moving.length === 0 || isLoading}
            onClick={() => {
              submit().catch(() => undefined);
            }}
          >
            {moving.length === 0
              ? t('planning.place-posts', { count: chosen.length })
              : t('planning.place-and-move', { count: chosen.length, moves: moving.length })}
          </Button>
        </div>
      </div>
    </aside>
  );
}

/** A post back where it stood, with the reason that it had. */
const toItsPlace = ({ id, channelId, date, minute, why }: PostView, version: number) => ({ postId: id, channelId, date, minute, why, version });

function Placement({
  one,
  title,
  channel,
  onShow,
}: {
  one: PlacementView | ProposedMoveView;
  title: string;
  channel: string;
  onShow: (date: string) => void;
}): ReactNode {
  const dispatch = useAppDispatch();
  const key = placeKey(one);
  const taken = !useAppSelector((state) => state.schedule.leftOut.includes(key));
  const isLocked = useAppSelector((state) => state.schedule.locked.includes(key));
  return (
    <li className="grid grid-cols-[auto_auto_1fr] gap-x-2 border-b border-rule py-[6px]">
      <input
        type="checkbox"
        className="mt-[4px] self-start accent-ink"
        aria-label={t('planning.take-on', { title, channel })}
        checked={taken}
        onChange={() => dispatch(leftOut(key))}
      />
      {'postId' in one ? (
        <span />
      ) : (
        <button
          type="button"
          aria-pressed={isLocked}
          aria-label={t('planning.keep-this-place', { title, channel })}
          title={t('planning.it-stays-here-when-asked-again')}
          className={isLocked ? 'self-start p-[3px] text-madder-text' : 'self-start p-[3px] text-soft'}
          onClick={() => dispatch(locked(key))}
        >
          {isLocked ? <Lock size={14} aria-hidden /> : <LockOpen size={14} aria-hidden />}
        </button>
      )}
      <div className="min-w-0">
        <button type="button" className="text-left text-[12px] hover:underline" title={t('planning.show-it-on-the-board')} onClick={() => onShow(one.date)}>
          <span className="time">
            {formatDay(one.date)} {formatMinute(one.minute)}
          </span>{' '}
          <span className="text-soft">{channel}</span>
        </button>
        <b className="block leading-[1.3]">{title}</b>
        {'postId' in one && (
          <div className="time text-soft">{t('planning.moves-from', { day: formatDay(one.fromDate), minute: formatMinute(one.fromMinute) })}</div>
        )}
        <div className="text-[12px] text-soft">{one.why}</div>
      </div>
    </li>
  );
}
