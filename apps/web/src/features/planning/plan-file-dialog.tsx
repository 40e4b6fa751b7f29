import { formatMinute } from '@sift-reel/core';
import { type ReactNode, useRef, useState } from 'react';
import { api, type ScheduleView } from '../../app/api.js';
import { didSomething } from '../../app/undo.js';
import { formatDay } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { Button, FormTrouble } from '../../ui/parts.js';

/** Reads a plan that was made elsewhere, shows what of it fits and what does not, and places what is ticked. */
export function PlanFileDialog({ view, clientId, onClose }: { view: ScheduleView; clientId: string | null; onClose: () => void }): ReactNode {
  const [read, { data, error, isLoading, reset }] = api.useReadPlanFileMutation();
  const [accept, accepting] = api.useAcceptPlanMutation();
  const [takeOff] = api.useTakeOffPostMutation();
  const [name, setName] = useState('');
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const file = useRef<HTMLInputElement>(null);
  const titleOf = (id: string): string => view.shorts.find((short) => short.id === id)?.title ?? '';
  const channelOf = (id: string): string => view.channels.find((channel) => channel.id === id)?.name ?? '';
  const chosen = data?.placements.filter(({ line }) => !left.has(line)) ?? [];
  const take = async (from: File | undefined): Promise<void> => {
    if (from === undefined) return;
    reset();
    setLeft(new Set());
    setName(from.name);
    const csv = await from.text();
    if (file.current !== null) file.current.value = ''; // the same file may be chosen again once it is mended
    await read({ csv, clientId }).unwrap();
  };
  const submit = async (): Promise<void> => {
    const placements = chosen.map(({ shortId, channelId, date, minute, why }) => ({ shortId, channelId, date, minute, why }));
    const posts = await accept({ batchId: null, placements }).unwrap();
    onClose();
    didSomething(t('planning.placed-posts', { count: posts.length }), async () => {
      for (const post of [...posts].reverse()) await takeOff(post.id).unwrap();
    });
  };
  return (
    <Dialog open onClose={onClose} title={t('planning.read-a-plan')} wide>
      <div className="flex items-center gap-3">
        <Button disabled={isLoading} onClick={() => file.current?.click()}>
          {t('planning.choose-a-csv')}
        </Button>
        <span className="text-soft">{name === '' ? t('planning.a-plan-has-the-columns') : name}</span>
        <input
          ref={file}
          type="file"
          data-testid="plan-file"
          accept=".csv,text/csv"
          className="hidden"
          onChange={(event) => {
            take(event.target.files?.[0]).catch(() => undefined);
          }}
        />
      </div>
      {data !== undefined && (
        <div className="mt-3 max-h-[400px] overflow-y-auto" data-testid="plan-read">
          <p className="pb-2">{t('planning.lines-fit', { count: data.placements.length, refused: data.refused.length, standing: data.standing })}</p>
          <table className="w-full">
            <tbody>
              {data.placements.map((one) => (
                <tr key={one.line} className="border-b border-rule">
                  <td className="py-[5px] pr-2">
                    <input
                      type="checkbox"
                      className="accent-ink"
                      aria-label={t('planning.take-on', { title: titleOf(one.shortId), channel: channelOf(one.channelId) })}
                      checked={!left.has(one.line)}
                      onChange={() =>
                        setLeft((old) => {
                          const next = new Set(old);
                          if (!next.delete(one.line)) next.add(one.line);
                          return next;
                        })
                      }
                    />
                  </td>
                  <td className="w-[60px] py-[5px] text-[12px] text-soft">{t('planning.line', { line: one.line })}</td>
                  <td className="time py-[5px] pr-3 whitespace-nowrap">
                    {formatDay(one.date)} {formatMinute(one.minute)}
                  </td>
                  <td className="w-[170px] py-[5px] pr-3">{channelOf(one.channelId)}</td>
                  <td className="py-[5px] font-semibold">{titleOf(one.shortId)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {data.refused.length > 0 && (
            <>
              <h2 className="mt-4 mb-1">{t('planning.does-not-fit')}</h2>
              <table className="w-full">
                <tbody>
                  {data.refused.map((one) => (
                    <tr key={`${one.line} ${one.field}`} className="border-b border-rule align-top">
                      <td className="w-[60px] py-[5px] text-[12px] text-soft">{t('planning.line', { line: one.line })}</td>
                      <td className="w-[70px] py-[5px] text-[12px] text-soft">{one.field}</td>
                      <td className="py-[5px] text-madder-text">{one.detail}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </>
          )}
        </div>
      )}
      <FormTrouble error={error ?? accepting.error} safe={t('planning.nothing-was-written')} />
      <DialogFoot>
        <Button onClick={onClose}>{t('common.cancel')}</Button>
        <Button
          tone="fill"
          disabled={chosen.length === 0 || accepting.isLoading}
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
