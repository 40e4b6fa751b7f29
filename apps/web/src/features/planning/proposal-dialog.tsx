import { formatDay, formatMinute } from '@sift-reel/core';
import { type ReactNode, useState } from 'react';
import { api, type ProposalView, type ScheduleView } from '../../app/api.js';
import { useAppDispatch } from '../../app/store.js';
import { didSomething } from '../../app/undo.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { Button, FormTrouble } from '../../ui/parts.js';
import { proposed } from './schedule-slice.js';

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
    didSomething(`Placed ${posts.length} ${posts.length === 1 ? 'post' : 'posts'}`, async () => {
      for (const post of [...posts].reverse()) await takeOff(post.id).unwrap();
    });
  };
  return (
    <Dialog
      open
      onClose={close}
      title={`Proposed plan: ${proposal.placements.length} ${proposal.placements.length === 1 ? 'placement' : 'placements'}, ${proposal.unplaced.length} without a place`}
      wide
    >
      <div className="max-h-[440px] overflow-y-auto" data-testid="proposal">
        {proposal.placements.length === 0 && <p className="py-3">None of these shorts fits into these days. The reasons are below.</p>}
        <table className="w-full">
          <tbody>
            {proposal.placements.map((one) => (
              <tr key={keyOf(one)} className="border-b border-rule align-top">
                <td className="py-[6px] pr-2">
                  <input
                    type="checkbox"
                    className="accent-ink"
                    aria-label={`Take “${titleOf(one.shortId)}” on ${channelOf(one.channelId)}`}
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
            <h2 className="mt-4 mb-1">Without a place</h2>
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
      <FormTrouble error={error} safe="Nothing was written." />
      <DialogFoot>
        <Button onClick={close}>Throw the proposal away</Button>
        <Button
          tone="fill"
          disabled={chosen.length === 0 || isLoading}
          onClick={() => {
            submit().catch(() => undefined);
          }}
        >
          Place {chosen.length} {chosen.length === 1 ? 'post' : 'posts'}
        </Button>
      </DialogFoot>
    </Dialog>
  );
}
