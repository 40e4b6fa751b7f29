import { type ReactNode, useState } from 'react';
import { api, type BatchView, type PostView, type ScheduleShortView } from '../../app/api.js';
import { useAppDispatch } from '../../app/store.js';
import { Dialog, DialogFoot } from '../../ui/dialog.js';
import { DayField } from '../../ui/day-field.js';
import { Button, FormTrouble } from '../../ui/parts.js';
import { proposed } from './schedule-slice.js';
import { t } from '../../texts/texts.js';

/** Asks for a proposal over a stretch of days; nothing is written. */
export function LayOutDialog({
  shorts,
  batch,
  movable,
  earliest,
  from,
  to,
  clientNames,
  onClose,
}: {
  shorts: readonly ScheduleShortView[];
  batch: BatchView | null;
  /** Posts that may move. */
  movable: readonly PostView[];
  earliest: string;
  from: string;
  to: string;
  clientNames: ReadonlyMap<string, string>;
  onClose: () => void;
}): ReactNode {
  const [fromDate, setFrom] = useState(from);
  const [toDate, setTo] = useState(to);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [propose, { error, isLoading }] = api.useProposePlanMutation();
  const dispatch = useAppDispatch();
  const ids = shorts.filter((short) => !left.has(short.id)).map((short) => short.id);
  const clients = new Set(shorts.filter((short) => ids.includes(short.id)).map((short) => short.clientId));
  const moving = movable.filter((post) => clients.has(post.clientId) && fromDate <= post.date && post.date <= toDate).length;
  const submit = async (): Promise<void> => {
    const asked = { shortIds: ids, fromDate, toDate };
    const proposal = await propose({ ...asked, kept: [], whatIf: [] }).unwrap();
    dispatch(proposed({ ...proposal, asked, kept: [], keptMoves: [], batchId: batch?.id ?? null }));
    onClose();
  };
  return (
    <Dialog open onClose={onClose} title={t('planning.lay-out-shorts', { count: ids.length })}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          submit().catch(() => undefined);
        }}
      >
        <div className="grid grid-cols-2 gap-4">
          <DayField label={t('common.from')} value={fromDate} min={earliest} onChange={setFrom} />
          <DayField
            label={t('common.to')}
            value={toDate}
            min={fromDate}
            onChange={setTo}
            error={toDate < fromDate ? t('planning.must-not-be-before-the-first') : undefined}
          />
        </div>
        <ul className="max-h-[260px] overflow-y-auto border-y border-rule">
          {shorts.map((short) => (
            <li key={short.id} className="border-b border-rule last:border-0">
              <label className="flex items-center gap-2 py-[5px]">
                <input
                  type="checkbox"
                  className="accent-ink"
                  checked={!left.has(short.id)}
                  onChange={() =>
                    setLeft((old) => {
                      const next = new Set(old);
                      if (!next.delete(short.id)) next.add(short.id);
                      return next;
                    })
                  }
                />
                <span className="min-w-0 flex-1 truncate">{short.title}</span>
                <span className="text-[11px] text-soft">{clientNames.get(short.clientId)}</span>
              </label>
            </li>
          ))}
        </ul>
        {moving > 0 && <p className="text-[12px] text-soft">{t('planning.on-these-days-may-move', { count: moving })}</p>}
        <FormTrouble error={error} />
        <DialogFoot>
          <span className="mr-auto text-[12px] text-soft">{t('planning.you-see-a-proposal-first-nothing')}</span>
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button tone="fill" type="submit" disabled={ids.length === 0 || toDate < fromDate || isLoading}>
            {t('planning.propose-a-plan')}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}
