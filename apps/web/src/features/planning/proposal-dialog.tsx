import { formatMinute } from '@sift-reel/core';
import { type ReactNode, useState } from 'react';
import { api, type ProposalView, type ScheduleView } from '../../app/api.js';
import { useAppDispatch } from '../../app/store.js';
import { didSomething } from '../../app/undo.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { Button, FormTrouble } from '../../ui/parts.js';
import { proposed } from './schedule-slice.js';
import { t } from '../../texts/texts.js';
import { formatDay } from '../../texts/formats.js';

/** The proposal: every placement and every refusal with its reason. It is written when it is accepted, whole. */
export function ProposalDialog({ view, proposal }: { view: ScheduleView; proposal: ProposalView & { batchId: string | null } }): ReactNode {
  const dispatch = useAppDispatch();
  const [accept, { error, isLoading }] = api.useAcceptPlanMutation();
  const [takeOff] = api.useTakeOffPostMutation();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const titleOf = (id: string): string => view.shorts.find((short) => short.id === id)?.title ?? '';
  const channelOf = (id: string): string => view.channels.find((channel) => channel.id === id)?.name ?? '';
  const keyOf = (one: { shortId: string; channelId: string }): string => `${one.shortId} ${one.channelId}`;
  const chosen = proposal.placements.filter((one) => !left.has(keyOf(one)));
  const close = (): void => {
    dispatch(proposed(null));
  };
  const submit = async (): Promise<void> => {
    const posts = await accept({
      batchId: proposal.batchId,
      placements: chosen.map(({ shortId, channelId, date, minute, why }) => ({ shortId, channelId, date, minute, why })),
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
      <div className="max-h-[440px] overflow-y-auto" data-testid="proposal">
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
                    onChange={() =>
                      setLeft((old) => {
                        const next = new Set(old);
                        if (!next.delete(keyOf(one))) next.add(keyOf(one));
                        return next;
                      })
                    }
                  />
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
      <FormTrouble error={error} safe={t('planning.nothing-was-written')} />
      <DialogFoot>
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
