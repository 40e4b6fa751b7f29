import { formatLength, formatTimecode } from '@sift-reel/core';
import { Tab, TabGroup, TabList, TabPanel, TabPanels } from '@headlessui/react';
import { Scissors } from 'lucide-react';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, type FindingView, type ShortChannelView, type ShortView, type TickForm } from '../../app/api.js';
import { forgetKeys, holdKeys } from '../../app/held-keys.js';
import { useKeys } from '../../app/keys.js';
import { problemOf } from '../../app/problems.js';
import { didSomething, sayTrouble } from '../../app/undo.js';
import { Button, Key } from '../../ui/parts.js';
import { KIND_NAMES } from '../../ui/signals.js';
import { CopyEditor } from './copy-editor.js';
import { saverOf } from './copy-saver.js';
import { Evergreen } from './evergreen.js';
import { Files } from './files.js';
import { Passage } from './passage.js';
import { Translations } from './translations.js';
import { Tick, tickKey, type Ticks, toTick } from './findings.js';
import { t } from '../../texts/texts.js';

/** What was not said in the passage, as the server lists it when it refuses to approve. */
type Unsaid = Pick<FindingView, 'rule' | 'text' | 'field' | 'detail'>;

/** The words of one short: for all channels, and a channel's own where it needs them. */
export function ShortEditor({ short, clientName, onNext }: { short: ShortView; clientName: string; onNext: () => void }): ReactNode {
  const navigate = useNavigate();
  const [tab, setTab] = useState(0);
  const [approving, setApproving] = useState(false);
  const [translating, setTranslating] = useState(false);
  const [setApproval] = api.useSetApprovalMutation();
  const saver = saverOf(short);
  useEffect(() => () => void saver.flush(), [saver]); // leaving the short, or the page
  const channel = short.channels[tab - 1] ?? null;
  const [ticked, setTicked] = useState<ReadonlyMap<string, TickForm>>(new Map());
  const [unsaid, setUnsaid] = useState<readonly Unsaid[]>([]);
  const ticks: Ticks = {
    has: (finding) => ticked.has(tickKey(finding)),
    toggle: (finding) =>
      setTicked((old) => {
        const next = new Map(old);
        if (!next.delete(tickKey(finding))) next.set(tickKey(finding), toTick(finding));
        return next;
      }),
  };
  const approve = (approved: boolean, after: () => void = () => undefined): void => {
    // What was typed goes first, and the yes is to exactly that.
    const write = (value: boolean) =>
      saver.andThen((version) => setApproval({ shortId: short.id, approvalForm: { approved: value, version, ticks: [...ticked.values()] } }).unwrap());
    const done = holdKeys();
    setApproving(true);
    setUnsaid([]);
    write(approved)
      .then(
        () => {
          didSomething(
            `${approved ? t('shorts.approved') : t('shorts.un-approved')} “${saver.words(null).title}”`,
            () => write(!approved),
            () => write(approved),
          );
          after();
        },
        (error: unknown) => {
          forgetKeys();
          const problem = problemOf(error);
          if (problem?.code === 'unsaid') setUnsaid((problem as unknown as { unsaid: Unsaid[] }).unsaid);
          else sayTrouble(error);
        },
      )
      .finally(() => {
        setApproving(false);
        done();
      });
  };
  useKeys([
    {
      key: 'a',
      label: short.approved ? t('shorts.un-approve-the-short') : t('shorts.approve-the-short'),
      group: t('common.shorts'),
      run: () => approve(!short.approved),
    },
    { key: 'c', label: t('shorts.cut-the-short'), group: t('common.shorts'), run: () => void navigate(`/shorts/${short.id}/cut`) },
    { key: 'g', label: t('shorts.other-languages'), group: t('common.shorts'), run: () => setTranslating(true) },
    { key: 'n', label: t('shorts.approve-and-go-to-the-next'), group: t('common.shorts'), run: () => (short.approved ? onNext() : approve(true, onNext)) },
  ]);
  return (
    <section aria-label={t('shorts.words-of-the-short')} className="min-h-0 overflow-y-auto">
      <div className="flex flex-wrap items-start gap-x-6 gap-y-3 border-b border-rule px-6 py-4">
        <div className="min-w-[240px] flex-1">
          <div className="text-[12px] text-soft">
            {clientName} · {KIND_NAMES[short.kind]} ·{' '}
            <span className="time">
              {formatTimecode(short.startMs, 'tenths')} – {formatTimecode(short.endMs, 'tenths')} · {formatLength(short.playedMs)}
            </span>
          </div>
          <Passage key={short.id} short={short} />
          <p className="mt-1 text-[12px] text-soft">
            {short.reason}{' '}
            <Link className="underline" to={`/recordings/${short.recordingId}/sifts/${short.siftId}`}>
              {t('shorts.on-the-bench')}
            </Link>
          </p>
        </div>
        <div className="flex flex-none flex-col items-end gap-2">
          <Button tone={short.approved ? 'plain' : 'fill'} keyName="a" disabled={approving} onClick={() => approve(!short.approved)}>
            {short.approved ? t('shorts.un-approve') : t('shorts.approve-the-short')}
          </Button>
          <Link
            to={`/shorts/${short.id}/cut`}
            className="inline-flex items-center gap-[7px] rounded border border-ink px-[11px] py-[5px] text-xs font-semibold hover:bg-sheet"
          >
            <Scissors size={13} />
            {t('shorts.cut')}
            <Key name="c" />
          </Link>
          <Button keyName="g" onClick={() => setTranslating(true)}>
            {t('shorts.languages')}
          </Button>
          {short.approved && <span className="text-[12px] text-verdigris-text">{t('shorts.approved-by', { approvedBy: short.approvedBy })}</span>}
          <span className="flex gap-3 text-[12px]">
            {t('shorts.captions')}{' '}
            <a className="underline" href={`/api/shorts/${short.id}/captions.srt`} download>
              {t('shorts.srt')}
            </a>{' '}
            <a className="underline" href={`/api/shorts/${short.id}/captions.vtt`} download>
              {t('shorts.webvtt')}
            </a>
          </span>
          <Evergreen short={short} />
          <Files short={short} before={() => saver.flush()} />
        </div>
      </div>
      {translating && <Translations short={short} onClose={() => setTranslating(false)} />}
      {unsaid.length > 0 && !short.approved && <UnsaidList unsaid={unsaid} ticks={ticks} />}
      <TabGroup
        selectedIndex={channel === null ? 0 : tab}
        onChange={(next) => {
          void saver.flush();
          setTab(next);
        }}
      >
        <TabList aria-label={t('shorts.words-for')} className="flex flex-wrap gap-1 border-b border-rule px-6 pt-2">
          <WordsTab name={t('shorts.all-channels')} />
          {short.channels.map((one) => (
            <WordsTab key={one.channelId} name={one.name} mark={markOf(one)} />
          ))}
        </TabList>
        <TabPanels>
          {[null, ...short.channels].map((one) => (
            <TabPanel key={one?.channelId ?? 'all'} tabIndex={-1}>
              {one?.unfit != null && <p className="mx-6 mt-4 border-l-4 border-madder pl-3 text-madder-text">{one.unfit}</p>}
              <CopyEditor short={short} channel={one} saver={saver} ticks={ticks} />
            </TabPanel>
          ))}
        </TabPanels>
      </TabGroup>
    </section>
  );
}

const markOf = ({ unfit, problems, variant }: ShortChannelView): 'trouble' | 'open' | 'own' | null => {
  if (unfit !== null || problems.some(({ field }) => field !== 'language')) return 'trouble';
  return problems.length > 0 ? 'open' : variant !== null ? 'own' : null;
};

function WordsTab({ name, mark = null }: { name: string; mark?: 'trouble' | 'open' | 'own' | null }): ReactNode {
  return (
    <Tab className="border-b-2 border-transparent px-3 py-[6px] text-soft hover:text-ink data-selected:border-madder data-selected:font-semibold data-selected:text-ink">
      {name}
      {(mark === 'trouble' || mark === 'open') && (
        <span className="ml-1 text-madder-text" title={t('shorts.this-channel-will-not-take-it')}>
          {mark === 'trouble' ? t('shorts.over-the-limit') : t('shorts.not-translated')}
        </span>
      )}
      {mark === 'own' && <span className="ml-1 text-[11px] text-soft">{t('shorts.own-words')}</span>}
    </Tab>
  );
}

/** What keeps a short from being approved, with a tick for each; the first one has the focus, so that the keyboard goes on there. */
function UnsaidList({ unsaid, ticks }: { unsaid: readonly Unsaid[]; ticks: Ticks }): ReactNode {
  const list = useRef<HTMLUListElement>(null);
  useEffect(() => list.current?.querySelector('input')?.focus(), [unsaid]);
  return (
    <div role="alert" className="mx-6 mt-4 border-l-4 border-madder pl-3">
      <b>{t('shorts.not-said-in-the-passage')}</b>
      <ul ref={list} className="grid gap-1">
        {unsaid.map((one) => (
          <li key={`${one.field} ${tickKey(one)}`} className="flex items-baseline gap-2">
            <span className="text-madder-text">{one.rule === 'claim' ? `“${one.text}”: ${one.detail}` : one.detail}</span>
            <Tick finding={one} ticked={ticks.has(one)} onToggle={() => ticks.toggle(one)} />
          </li>
        ))}
      </ul>
      <p className="text-[12px] text-soft">{t('shorts.tick-what-is-right-all-the')}</p>
    </div>
  );
}
