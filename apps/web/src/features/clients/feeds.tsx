import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { FEED_RULES, FeedForm as Form, type FeedRule } from '@sift-reel/forms';
import { RotateCw, Trash2 } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { api, type ClientView, type FeedView } from '../../app/api.js';
import { problemOf, problemText } from '../../app/problems.js';
import { didSomething, doNow, sayTrouble } from '../../app/undo.js';
import { formatMoment } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { ConfirmDialog, Dialog } from '../../ui/dialog.js';
import { TextField } from '../../ui/fields.js';
import { Button, FormTrouble, Loading, Trouble } from '../../ui/parts.js';
import { Select } from '../../ui/select.js';
import { EpisodeRow } from '../recordings/episode-row.js';

const RULE_NAMES: Readonly<Record<FeedRule, string>> = {
  list: t('clients.rule-list'),
  take: t('clients.rule-take'),
  sift: t('clients.rule-sift'),
};
/** How an address begins, in every language. */
const A_LINK = 'https://';
const RULES = FEED_RULES.map((value) => ({ value, name: RULE_NAMES[value] }));

/** Feeds that a client follows: what becomes of their new episodes, how they stand, and what is out. */
export function Feeds({ client }: { client: ClientView }): ReactNode {
  const feeds = api.useListFeedsQuery();
  const own = (feeds.data ?? []).filter((one) => one.clientId === client.id);
  return (
    <section aria-label={t('clients.feeds')}>
      <h2 className="border-b border-ink pb-1">{t('clients.feeds')}</h2>
      {feeds.isLoading && <Loading what={t('clients.the-feeds')} rows={2} />}
      {feeds.error !== undefined && <p className="py-2 text-madder-text">{problemText(feeds.error)}</p>}
      {feeds.data !== undefined && own.length === 0 && <p className="py-2 text-soft">{t('clients.no-feeds-yet')}</p>}
      {own.map((one) => (
        <FeedRow key={one.id} feed={one} />
      ))}
      <Follow clientId={client.id} />
    </section>
  );
}

function FeedRow({ feed }: { feed: FeedView }): ReactNode {
  const [change] = api.useChangeFeedMutation();
  const [read] = api.useReadFeedNowMutation();
  const [leave, leaving] = api.useLeaveFeedMutation();
  const [isAsking, setIsAsking] = useState(false);
  const [isOpen, setIsOpen] = useState(false);
  const setRule = (rule: FeedRule): void => {
    if (rule === feed.rule) return;
    let { version } = feed;
    const put = async (next: FeedRule): Promise<void> => {
      ({ version } = await change({ feedId: feed.id, feedChangeForm: { rule: next, version } }).unwrap());
    };
    void doNow(
      t('clients.changed-the-rule', { title: feed.title }),
      () => put(rule),
      () => put(feed.rule),
    );
  };
  return (
    <div className="border-b border-rule py-2">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <div className="min-w-[180px] flex-1">
          <button type="button" className="max-w-full truncate text-left text-[14px] font-bold hover:underline" onClick={() => setIsOpen(true)}>
            {feed.title}
          </button>
          <div className="truncate text-[12px] text-soft" title={feed.url}>
            {t('clients.feed-facts', { count: feed.episodeCount, newCount: feed.newCount })}
            {' · '}
            {feed.reading ? t('clients.being-read') : feed.readAt === null ? t('clients.never-read') : t('clients.read-at', { at: formatMoment(feed.readAt) })}
          </div>
        </div>
        <span className="text-[12px] text-soft">{t('clients.new-ones-are')}</span>
        <Select label={t('clients.rule-for', { title: feed.title })} value={feed.rule} options={RULES} onChange={setRule} />
        <span className="flex">
          <button
            type="button"
            className="p-[5px] text-soft hover:text-ink"
            aria-label={t('clients.read-now', { title: feed.title })}
            title={t('clients.read-now', { title: feed.title })}
            disabled={feed.reading}
            onClick={() => void read(feed.id).unwrap().catch(sayTrouble)}
          >
            <RotateCw size={14} />
          </button>
          <button
            type="button"
            className="p-[5px] text-soft hover:text-madder-text"
            aria-label={t('clients.stop-following', { title: feed.title })}
            title={t('clients.stop-following', { title: feed.title })}
            onClick={() => setIsAsking(true)}
          >
            <Trash2 size={14} />
          </button>
        </span>
      </div>
      {feed.trouble !== null && (
        <p role="alert" className="text-[12px] text-madder-text">
          {feed.trouble}{' '}
          {feed.nextReadAt === null ? t('clients.not-read-any-more') : feed.reading ? '' : t('clients.read-again-at', { at: formatMoment(feed.nextReadAt) })}
        </p>
      )}
      {isOpen && <Episodes feed={feed} onClose={() => setIsOpen(false)} />}
      {isAsking && (
        <ConfirmDialog
          title={t('clients.stop-following', { title: feed.title })}
          deed={t('clients.stop-following-it')}
          keep={t('clients.keep-following')}
          busy={leaving.isLoading}
          onClose={() => setIsAsking(false)}
          onConfirm={() =>
            void leave(feed.id)
              .unwrap()
              .catch(sayTrouble)
              .then(() => setIsAsking(false))
          }
        >
          {t('clients.what-was-taken-in-stays')}
        </ConfirmDialog>
      )}
    </div>
  );
}

function Episodes({ feed, onClose }: { feed: FeedView; onClose: () => void }): ReactNode {
  const { data, error, refetch } = api.useListEpisodesQuery(feed.id);
  return (
    <Dialog open onClose={onClose} title={feed.title} wide>
      {error !== undefined && <Trouble title={t('clients.the-episodes-cannot-be-shown')} detail={problemText(error)} onRetry={() => void refetch()} />}
      {data === undefined && error === undefined && <Loading what={t('clients.the-episodes')} />}
      {data?.length === 0 && <p className="text-soft">{feed.reading ? t('clients.being-read') : t('clients.no-episodes-yet')}</p>}
      {data !== undefined && data.length > 0 && (
        <ul className="max-h-[62vh] divide-y divide-rule overflow-y-auto border-y border-rule">
          {data.map((one) => (
            <EpisodeRow key={one.id} episode={one} />
          ))}
        </ul>
      )}
    </Dialog>
  );
}

function Follow({ clientId }: { clientId: string }): ReactNode {
  const [follow, { error, isLoading }] = api.useFollowFeedMutation();
  const [leave] = api.useLeaveFeedMutation();
  const { register, control, handleSubmit, formState, reset } = useForm<Form>({
    resolver: classValidatorResolver(Form),
    defaultValues: { url: '', rule: 'list' },
  });
  const refused = (problemOf(error)?.errors ?? []).find(({ field }) => field === 'url')?.detail;
  const submit = handleSubmit(async (feedForm) => {
    let made = await follow({ clientId, feedForm }).unwrap();
    didSomething(
      t('clients.followed', { title: made.title }),
      () => leave(made.id).unwrap(),
      async () => {
        made = await follow({ clientId, feedForm }).unwrap();
      },
    );
    reset();
  });
  return (
    <form
      className="mt-3 grid grid-cols-1 items-start gap-2 md:grid-cols-[1.6fr_1.2fr_auto]"
      onSubmit={(event) => {
        submit(event).catch(() => undefined);
      }}
      noValidate
    >
      <TextField
        label={t('clients.address-of-the-feed')}
        placeholder={A_LINK}
        inputMode="url"
        error={formState.errors.url?.message ?? refused}
        {...register('url')}
      />
      <Controller
        control={control}
        name="rule"
        render={({ field }) => <Select look="field" label={t('clients.new-episodes-are')} value={field.value} options={RULES} onChange={field.onChange} />}
      />
      <Button type="submit" className="md:mt-[20px]" disabled={isLoading}>
        {t('clients.follow-the-feed')}
      </Button>
      {error !== undefined && refused === undefined && (
        <div className="md:col-span-3">
          <FormTrouble error={error} />
        </div>
      )}
    </form>
  );
}
