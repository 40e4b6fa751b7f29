import { ExternalLink } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { api, type PostView, type SendingView } from '../../app/api.js';
import { sayDone, sayTrouble } from '../../app/undo.js';
import { formatMoment } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { ConfirmDialog, Dialog, DialogFoot } from '../../ui/dialog.js';
import { AreaField, TextField } from '../../ui/fields.js';
import { Button, FormTrouble } from '../../ui/parts.js';

const EVENT_NAMES: Readonly<Record<SendingView['events'][number]['event'], string>> = {
  fixed: t('sending.fixed'),
  waits: t('sending.waits'),
  begun: t('sending.begun'),
  'no-answer': t('sending.no-answer'),
  found: t('sending.found'),
  'not-found': t('sending.not-found'),
  'put-off': t('sending.put-off'),
  taken: t('sending.taken'),
  posted: t('sending.posted'),
  refused: t('sending.refused'),
  missed: t('sending.missed'),
  recalled: t('sending.recalled'),
  corrected: t('sending.corrected'),
  'taken-down': t('sending.taken-down'),
  'send-again': t('sending.send-again'),
  'told-up': t('sending.told-up'),
  'told-not-up': t('sending.told-not-up'),
};

interface SendingProps {
  post: PostView;
  sending: SendingView;
}

/** What went out of a post, where it is seen, and what happened on its way. */
export function Sending({ post, sending }: SendingProps): ReactNode {
  if (sending.fixedAt === null && sending.events.length === 0) return null;
  return (
    <section className="mt-4 border-t border-rule pt-3" aria-label={t('planning.on-its-way')}>
      {sending.fixedAt !== null && (
        <dl className="grid grid-cols-[110px_1fr] gap-y-1">
          <dt className="text-soft">{t('planning.sent-with')}</dt>
          <dd>
            {sending.account} · {sending.service}
          </dd>
          <dt className="text-soft">{post.state === 'posted' ? t('planning.what-went-out') : t('planning.what-goes-out')}</dt>
          <dd className="min-w-0">
            <b>{sending.title}</b>
            {sending.description !== '' && <p className="line-clamp-3 whitespace-pre-line text-soft">{sending.description}</p>}
            {sending.hashtags.length > 0 && <p className="text-soft">{sending.hashtags.map((tag) => `#${tag}`).join(' ')}</p>}
            {sending.takenDownAt !== null && <p className="text-madder-text">{t('planning.taken-down-on', { at: formatMoment(sending.takenDownAt) })}</p>}
            {sending.address !== null && sending.takenDownAt === null && (
              <a className="inline-flex items-center gap-1 font-semibold underline" href={sending.address} target="_blank" rel="noreferrer">
                {t('planning.see-it-there')}
                <ExternalLink size={12} aria-hidden />
              </a>
            )}
          </dd>
        </dl>
      )}
      {(sending.inDoubt || sending.askPerson) && <Doubt post={post} askPerson={sending.askPerson} />}
      <h3 className="mt-3 text-[12px] font-semibold">{t('planning.what-happened')}</h3>
      <ol className="max-h-[132px] overflow-y-auto" tabIndex={0} aria-label={t('planning.what-happened')}>
        {sending.events.map((one, i) => (
          <li key={i} className="grid grid-cols-[118px_1fr] gap-x-2 border-b border-rule py-[3px] text-[12px] last:border-0">
            <span className="time text-soft">{formatMoment(one.at)}</span>
            <span className="min-w-0 break-words">
              {EVENT_NAMES[one.event]}
              {one.by !== null && ` (${one.by})`}
              {one.detail !== '' && <span className="text-soft">: {one.detail}</span>}
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}

/** Whether it is up is not known: it is being found out, or a person says. */
function Doubt({ post, askPerson }: { post: PostView; askPerson: boolean }): ReactNode {
  const [tell] = api.useTellOutcomeMutation();
  const say = (isUp: boolean): void => {
    tell({ postId: post.id, outcomeForm: { isUp, version: post.version } })
      .unwrap()
      .catch(sayTrouble);
  };
  return (
    <div className="mt-3 border-l-4 border-madder pl-2">
      <p className="text-madder-text">{askPerson ? t('planning.its-sending-broke-off') : t('planning.it-is-being-found-out')}</p>
      {askPerson && (
        <p className="mt-1 flex gap-2">
          <Button onClick={() => say(true)}>{t('planning.it-is-up')}</Button>
          <Button onClick={() => say(false)}>{t('planning.it-is-not-up')}</Button>
        </p>
      )}
    </div>
  );
}

/** What can be done with a post that Sift Reel sends, or has sent. */
export function SendingDeeds({ post, sending }: SendingProps): ReactNode {
  const [again, { isLoading }] = api.useSendAgainMutation();
  const [asking, setAsking] = useState<'words' | 'down' | null>(null);
  const isOut = post.state === 'posted' && sending.address !== null && sending.takenDownAt === null;
  return (
    <>
      {(post.state === 'refused' || post.state === 'missed') && (
        <Button
          disabled={isLoading}
          onClick={() => {
            again({ postId: post.id, postSeenForm: { version: post.version } })
              .unwrap()
              .then(() => sayDone(t('planning.sends-again')), sayTrouble);
          }}
        >
          {t('planning.send-it-now')}
        </Button>
      )}
      {isOut && sending.corrects && <Button onClick={() => setAsking('words')}>{t('planning.change-its-words')}</Button>}
      {isOut && (
        <Button tone="trouble" onClick={() => setAsking('down')}>
          {t('planning.take-it-down')}
        </Button>
      )}
      {asking === 'words' && <WordsDialog post={post} sending={sending} onClose={() => setAsking(null)} />}
      {asking === 'down' && <DownDialog post={post} onClose={() => setAsking(null)} />}
    </>
  );
}

function WordsDialog({ post, sending, onClose }: SendingProps & { onClose: () => void }): ReactNode {
  const [correct, { isLoading, error }] = api.useCorrectPostMutation();
  const [title, setTitle] = useState(sending.title);
  const [description, setDescription] = useState(sending.description);
  return (
    <Dialog open onClose={onClose} title={t('planning.change-the-words-there')}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          correct({ postId: post.id, postedWordsForm: { title, description, version: post.version } })
            .unwrap()
            .then(
              () => {
                sayDone(t('planning.words-changed-there'));
                onClose();
              },
              () => undefined, // said below
            );
        }}
      >
        <div className="flex flex-col gap-3">
          <TextField label={t('common.title')} value={title} autoFocus onChange={(event) => setTitle(event.target.value)} />
          <AreaField label={t('common.description')} rows={6} value={description} onChange={(event) => setDescription(event.target.value)} />
        </div>
        <FormTrouble error={error} />
        <DialogFoot>
          <Button onClick={onClose}>{t('common.cancel')}</Button>
          <Button tone="fill" type="submit" disabled={isLoading || title.trim() === ''}>
            {t('common.send-there')}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}

function DownDialog({ post, onClose }: { post: PostView; onClose: () => void }): ReactNode {
  const [takeDown, { isLoading }] = api.useTakePostDownMutation();
  return (
    <ConfirmDialog
      title={t('planning.take-it-down-there')}
      deed={t('planning.take-it-down')}
      keep={t('planning.leave-it-up')}
      busy={isLoading}
      onClose={onClose}
      onConfirm={() => {
        takeDown({ postId: post.id, version: post.version })
          .unwrap()
          .then(() => sayDone(t('planning.was-taken-down')), sayTrouble)
          .finally(onClose);
      }}
    >
      {t('planning.it-goes-from-the-platform')}
    </ConfirmDialog>
  );
}
