import { Trash2 } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { api, type CalendarMadeView, type CalendarView } from '../../app/api.js';
import { formatDate, formatMoment } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { ConfirmDialog, Dialog, DialogFoot } from '../../ui/dialog.js';
import { TextField } from '../../ui/fields.js';
import { Button, FormTrouble } from '../../ui/parts.js';

/** Private addresses at which calendar programs read a client's posts, each for somebody and withdrawn by itself. */
export function Calendars({ clientId }: { clientId: string }): ReactNode {
  const { data = [] } = api.useListCalendarsQuery(clientId);
  const [withdraw, { isLoading, error }] = api.useWithdrawCalendarMutation();
  const [making, setMaking] = useState(false);
  const [going, setGoing] = useState<CalendarView | null>(null);
  return (
    <section className="border border-rule bg-sheet p-4" aria-label={t('clients.calendars')}>
      <div className="mb-2 flex items-baseline gap-3">
        <h2>{t('clients.calendars')}</h2>
        <Button className="ml-auto" onClick={() => setMaking(true)}>
          {t('clients.new-address')}
        </Button>
      </div>
      <p className="text-[12px] text-soft">{t('clients.whoever-has-an-address')}</p>
      <ul>
        {data.map((one) => (
          <li key={one.id} className="flex items-baseline gap-3 border-b border-rule py-[6px] last:border-0">
            <b className="min-w-0 truncate">{one.name}</b>
            <span className="text-[12px] text-soft">
              {one.readAt === null ? t('clients.not-read-yet') : t('clients.read-last', { at: formatMoment(one.readAt) })}
            </span>
            <button
              type="button"
              className="ml-auto p-1 text-soft hover:text-madder-text"
              title={t('clients.withdraw')}
              aria-label={t('clients.withdraw-the-address-for', { name: one.name })}
              onClick={() => setGoing(one)}
            >
              <Trash2 size={14} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
      <FormTrouble error={error} />
      {making && <NewAddress clientId={clientId} onClose={() => setMaking(false)} />}
      {going !== null && (
        <ConfirmDialog
          title={t('clients.withdraw-the-address-for', { name: going.name })}
          deed={t('clients.withdraw')}
          keep={t('clients.keep-it')}
          busy={isLoading}
          onClose={() => setGoing(null)}
          onConfirm={() => {
            withdraw(going.id)
              .unwrap()
              .catch(() => undefined)
              .finally(() => setGoing(null));
          }}
        >
          {t('clients.whoever-subscribed-gets-nothing', { day: formatDate(going.createdAt) })}
        </ConfirmDialog>
      )}
    </section>
  );
}

/** Asks whom it is for, then tells the address, once. */
function NewAddress({ clientId, onClose }: { clientId: string; onClose: () => void }): ReactNode {
  const [create, { error, isLoading }] = api.useCreateCalendarMutation();
  const [name, setName] = useState('');
  const [made, setMade] = useState<CalendarMadeView | null>(null);
  const [copied, setCopied] = useState(false);
  if (made !== null)
    return (
      <Dialog open onClose={onClose} title={t('clients.the-address-for', { name: made.name })}>
        <TextField label={t('clients.address')} readOnly value={made.address} onFocus={(event) => event.target.select()} />
        <p className="mt-2 text-soft">{t('clients.it-is-told-this-once')}</p>
        <DialogFoot>
          <Button
            onClick={() => {
              navigator.clipboard.writeText(made.address).then(
                () => setCopied(true),
                () => undefined, // it is selected by a click as well
              );
            }}
          >
            {copied ? t('clients.copied') : t('clients.copy')}
          </Button>
          <Button tone="fill" onClick={onClose}>
            {t('common.close')}
          </Button>
        </DialogFoot>
      </Dialog>
    );
  return (
    <Dialog open onClose={onClose} title={t('clients.new-address')}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          create({ clientId, calendarForm: { name } })
            .unwrap()
            .then(setMade, () => undefined);
        }}
      >
        <TextField
          label={t('clients.whom-it-is-for')}
          value={name}
          maxLength={80}
          autoFocus
          onChange={(event) => setName(event.target.value)}
          hint={t('clients.one-for-each-so-that')}
        />
        <FormTrouble error={error} />
        <DialogFoot>
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button tone="fill" type="submit" disabled={isLoading || name.trim() === ''}>
            {t('clients.make-the-address')}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}
