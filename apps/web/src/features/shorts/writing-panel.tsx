import { isTruth } from '@sift-reel/core';
import clsx from 'clsx';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { api, type CopyView, type FindingView, type ShortView, type WritingView } from '../../app/api.js';
import { useKeys } from '../../app/keys.js';
import { sayTrouble } from '../../app/undo.js';
import { Button } from '../../ui/parts.js';
import { t } from '../../texts/texts.js';

interface WritingPanelProps {
  readonly short: ShortView;
  /** Takes words into the fields; they are checked there as any others. */
  readonly onTake: (words: Partial<CopyView>, what: string) => void;
}

/** Keys of its titles follow those of the proposals. */
const FIRST_KEY = 6;

/** Asks the writing service, where there is one and the client allows it, and shows what came with what is wrong in it. */
export function WritingPanel({ short, onTake }: WritingPanelProps): ReactNode {
  const service = api.useReadWritingServiceQuery().data;
  const client = api.useListClientsQuery().data?.find((one) => one.id === short.clientId);
  const configured = service?.configured === true;
  const allowed = configured && client?.writingService === true;
  const writings = api.useListWritingsQuery(short.id, { skip: !allowed });
  const [ask, asking] = api.useAskForWordsMutation();
  const [cancel] = api.useCancelWritingMutation();
  const last = allowed ? writings.currentData?.[0] : undefined;
  const busy = asking.isLoading || last?.state === 'waiting' || last?.state === 'running';
  const put = (): void => {
    if (!busy) ask(short.id).unwrap().catch(sayTrouble);
  };
  const titles = last?.state === 'done' ? last.titles : [];
  useKeys(
    allowed
      ? [
          { key: 'w', label: t('shorts.ask-the-writing-service'), group: t('common.shorts'), run: put },
          ...titles.slice(0, 10 - FIRST_KEY).map(({ text }, i) => ({
            key: String(FIRST_KEY + i),
            label: t('shorts.take-title', { number: FIRST_KEY + i }),
            group: t('common.shorts'),
            run: () => onTake({ title: text }, t('shorts.took-the-title-text', { text })),
          })),
        ]
      : [],
  );
  if (!configured || client === undefined) return null;
  if (!allowed)
    return (
      <p className="text-[12px] text-soft">
        {t('shorts.the-writing-service-is-not-asked', { name: client.name })}{' '}
        <Link className="underline" to={`/clients/${client.id}`}>
          {t('shorts.it-is-allowed-on-the-clients')}
        </Link>
      </p>
    );
  return (
    <section aria-label={t('shorts.writing-service')} className="grid gap-2 border border-rule bg-sheet px-3 py-2">
      <div className="flex items-center gap-3">
        <b className="text-[12px]">{t('shorts.writing-service')}</b>
        <span role="status" className={clsx('text-[12px]', last?.state === 'failed' ? 'text-madder-text' : 'text-soft')}>
          {sayWriting(last, busy)}
        </span>
        <span className="ml-auto flex gap-2">
          {last !== undefined && (last.state === 'waiting' || last.state === 'running') && (
            <Button tone="quiet" onClick={() => void cancel(last.id).unwrap().catch(sayTrouble)}>
              {t('shorts.stop-waiting')}
            </Button>
          )}
          <Button keyName="w" disabled={busy} onClick={put}>
            {last === undefined ? t('shorts.ask-for-words') : t('shorts.ask-again')}
          </Button>
        </span>
      </div>
      {last?.state === 'done' && <Words writing={last} onTake={onTake} />}
    </section>
  );
}

function sayWriting(last: WritingView | undefined, busy: boolean): string {
  if (busy) return t('shorts.waiting-for-its-words');
  if (last === undefined) return t('shorts.sends-the-passage-the-voice-and');
  if (last.state === 'failed') return last.failure ?? t('shorts.it-failed');
  if (last.state === 'cancelled') return t('shorts.stopped');
  return t('shorts.asked-by', { askedBy: last.askedBy });
}

function Words({ writing, onTake }: { writing: WritingView; onTake: WritingPanelProps['onTake'] }): ReactNode {
  const [shown, setShown] = useState(false);
  const { titles, description, hashtags, coverLine, keywords, findings, otherLanguage, speaksToProgram } = writing;
  const wrong = findings.filter(isGrave);
  const text: Partial<CopyView> = {
    ...(description === '' ? {} : { description }),
    ...(hashtags.length === 0 ? {} : { hashtags: [...hashtags] }),
    ...(keywords.length === 0 ? {} : { keywords: [...keywords] }),
    ...(coverLine === '' ? {} : { coverLine }),
  };
  return (
    <>
      {otherLanguage !== null && <p className="text-madder-text">{t('shorts.the-answer-is-in', { otherLanguage })}</p>}
      {speaksToProgram && <p className="text-madder-text">{t('shorts.the-passage-itself-speaks-to-a')}</p>}
      <ol aria-label={t('shorts.what-came-back')} className="divide-y divide-rule border-y border-rule">
        {titles.map((title, i) => (
          <li key={i}>
            <button
              type="button"
              className="grid w-full grid-cols-[18px_1fr] items-baseline gap-x-2 px-1 py-[6px] text-left hover:bg-paper"
              onClick={() => onTake({ title: title.text }, t('shorts.took-the-title-text', { text: title.text }))}
            >
              <kbd className="text-[11px] text-soft">{FIRST_KEY + i < 10 ? FIRST_KEY + i : ''}</kbd>
              <span className="min-w-0 break-words">{title.text}</span>
              <Wrong findings={title.findings.filter(isGrave)} />
            </button>
          </li>
        ))}
      </ol>
      {Object.keys(text).length > 0 && (
        <div className="grid grid-cols-[18px_1fr_auto] items-baseline gap-x-2 px-1">
          <span />
          <span className="text-[12px]">
            {description} {hashtags.map((tag) => `#${tag}`).join(' ')}
          </span>
          <Button tone="quiet" onClick={() => onTake(text, t('shorts.took-the-words-of-the-writing'))}>
            {t('shorts.take-the-text')}
          </Button>
          <Wrong findings={wrong} />
        </div>
      )}
      <button type="button" aria-expanded={shown} className="justify-self-start text-[12px] underline" onClick={() => setShown(!shown)}>
        {shown ? t('shorts.hide-what-was-sent-and-what') : t('shorts.what-was-sent-and-what-came')}
      </button>
      {shown && (
        <div className="grid gap-2 sm:grid-cols-2">
          {[
            [t('shorts.sent'), writing.sent],
            [t('shorts.came'), writing.came ?? ''],
          ].map(([name, json]) => (
            <div key={name} className="min-w-0">
              <div className="text-[12px] font-semibold">{name}</div>
              <pre tabIndex={0} aria-label={name} className="max-h-[220px] overflow-auto border border-rule bg-paper p-2 font-mono text-[11px]">
                {json}
              </pre>
            </div>
          ))}
        </div>
      )}
    </>
  );
}

/** Not said, or longer than may be. */
const isGrave = (finding: FindingView): boolean => isTruth(finding) || finding.rule === 'length';

function Wrong({ findings }: { findings: readonly FindingView[] }): ReactNode {
  if (findings.length === 0) return null;
  return <span className="col-start-2 text-[12px] text-madder-text">{findings.map(({ detail }) => detail).join(' ')}</span>;
}
