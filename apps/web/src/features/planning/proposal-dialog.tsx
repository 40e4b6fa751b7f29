import { formatMinute } from '@sift-reel/core';
import { Lock, LockOpen } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { api, type ScheduleView } from '../../app/api.js';
import { useAppDispatch } from '../../app/store.js';
import { didSomething } from '../../app/undo.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { Button, FormTrouble } from '../../ui/parts.js';
import { joined, proposed, type Proposed, toPlacementForm } from './schedule-slice.js';
import { WhatIf } from './what-if.js';
import { Worth } from './worth.js';
import { t } from '../../texts/texts.js';
import { formatDay } from '../../texts/formats.js';

/**
 * The proposal: what it is worth, and every placement and every refusal with its reason. Some can be kept and the rest asked
 * for again; what is ticked is written when it is accepted, whole.
 */
export function ProposalDialog({ view, proposal }: { view: ScheduleView; proposal: Proposed }): ReactNode {
  const dispatch = useAppDispatch();
  const [accept, { error, isLoading }] = api.useAcceptPlanMutation();
  const [takeOff] = api.useTakeOffPostMutation();
  const [propose, again] = api.useProposePlanMutation();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [locked, setLocked] = useState<ReadonlySet<string>>(new Set());
  const [asksWhatIf, setAsksWhatIf] = useState(false);
  const titleOf = (id: string): string => view.shorts.find((short) => short.id === id)?.title ?? '';
  const channelOf = (id: string): string => view.channels.find((channel) => channel.id === id)?.name ?? '';
  const keyOf = (one: { shortId: string; channelId: string }): string => `${one.shortId} ${one.channelId}`;
  const chosen = proposal.placements.filter((one) => !left.has(keyOf(one)));
  const kept = proposal.placements.filter((one) => locked.has(keyOf(one)));
  const askAgain = async (): Promise<void> => {
    const answer = await propose({ ...proposal.asked, kept: kept.map(toPlacementForm), whatIf: [] }).unwrap();
    dispatch(proposed({ ...proposal, ...joined(answer, kept), kept }));
  };
  const close = (): void => {
    dispatch(proposed(null));
  };
  const submit = async (): Promise<void> => {
    const posts = await accept({
      batchId: proposal.batchId,
      placements: chosen.map(toPlacementForm),
    }).unwrap();
    close();
    didSomething(t('planning.placed-posts', { count: posts.length }), async () => {
      for (const post of [...posts].reverse()) await takeOff(post.id).unwrap();
    });
  };
  return (
    <Dialog
      open
      onClose={close}
      title={t('planning.proposed-plan-placements-without-a-place', { count: proposal.placements.length, unplaced: proposal.unplaced.length })}
      wide
    >
      <Worth value={proposal.value} bound={proposal.bound} />
      <div className="mt-2 max-h-[400px] overflow-y-auto" data-testid="proposal">
        {proposal.placements.length === 0 && <p className="py-3">{t('planning.none-of-these-shorts-fits-into')}</p>}
        <table className="w-full">
          <tbody>
            {proposal.placements.map((one) => (
              <tr key={keyOf(one)} className="border-b border-rule align-top">
                <td className="py-[6px] pr-2">
                  <input
                    type="checkbox"
                    className="accent-ink"
                    aria-label={t('planning.take-on', { title: titleOf(one.shortId), channel: channelOf(one.channelId) })}
                    checked={!left.has(keyOf(one))}
                    onChange={() => setLeft((old) => toggled(old, keyOf(one)))}
                  />
                </td>
                <td className="py-[4px] pr-2">
                  <button
                    type="button"
                    aria-pressed={locked.has(keyOf(one))}
                    aria-label={t('planning.keep-this-place', { title: titleOf(one.shortId), channel: channelOf(one.channelId) })}
                    title={t('planning.it-stays-here-when-asked-again')}
                    className={locked.has(keyOf(one)) ? 'p-[3px] text-madder-text' : 'p-[3px] text-soft'}
                    onClick={() => setLocked((old) => toggled(old, keyOf(one)))}
                  >
                    {locked.has(keyOf(one)) ? <Lock size={14} aria-hidden /> : <LockOpen size={14} aria-hidden />}
                  </button>
                </td>
                <td className="time py-[6px] pr-3 whitespace-nowrap">
                  {formatDay(one.date)} {formatMinute(one.minute)}
                </td>
                <td className="w-[170px] py-[6px] pr-3">{channelOf(one.channelId)}</td>
                <td className="py-[6px]">
                  <b>{titleOf(one.shortId)}</b>
                  <div className="text-[12px] text-soft">{one.why}</div>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {proposal.unplaced.length > 0 && (
          <>
            <h2 className="mt-4 mb-1">{t('planning.without-a-place')}</h2>
            <table className="w-full">
              <tbody>
                {proposal.unplaced.map((one) => (
                  <tr key={keyOf(one)} className="border-b border-rule align-top">
                    <td className="w-[190px] py-[6px] pr-3">{channelOf(one.channelId)}</td>
                    <td className="py-[6px]">
                      <b>{titleOf(one.shortId)}</b>
                      <div className="text-[12px] text-madder-text">{one.detail}</div>
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </>
        )}
      </div>
      {asksWhatIf && <WhatIf view={view} proposal={proposal} />}
      <FormTrouble error={error ?? again.error} safe={t('planning.nothing-was-written')} />
      <DialogFoot>
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
          disabled={chosen.length === 0 || isLoading}
          onClick={() => {
            submit().catch(() => undefined);
          }}
        >
          {t('planning.place-posts', { count: chosen.length })}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}

function toggled(set: ReadonlySet<string>, key: string): ReadonlySet<string> {
  const next = new Set(set);
  if (!next.delete(key)) next.add(key);
  return next;
}
