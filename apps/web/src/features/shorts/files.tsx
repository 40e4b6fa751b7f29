import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { formatLength } from '@sift-reel/core';
import clsx from 'clsx';
import { Clapperboard, Download, Play, X } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { api, type RenderForm, type RenderView, type ShortView } from '../../app/api.js';
import { stageName } from '../../app/stages.js';
import { sayTrouble } from '../../app/undo.js';
import { formatBytes, lufs, timeLeft } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { Dialog } from '../../ui/dialog.js';
import { ProgressBar } from '../../ui/parts.js';
import { SHAPE_NAMES } from '../../ui/shapes.js';
import { askedFiles } from './asked-files.js';

const NAMES: Readonly<Record<RenderForm['shape'], string>> = { ...SHAPE_NAMES, sound: t('shorts.sound-alone') };
/** Of former versions, no more are shown. */
const MOST_SHOWN = 6;

/** Files of a short: asked for by their shape, made in the background, watched and taken away here. */
export function Files({ short, before }: { short: ShortView; before: () => Promise<unknown> }): ReactNode {
  const renders = api.useListRendersQuery(short.id).currentData ?? [];
  const [ask, asking] = api.useAskForRenderMutation();
  const [watched, setWatched] = useState<RenderView | null>(null);
  const item = 'block w-full px-3 py-[7px] text-left data-focus:bg-faint';
  const channels = api.useListChannelsQuery().currentData ?? [];
  const asked = askedFiles(channels.filter(({ clientId }) => clientId === short.clientId));
  const put = (renderForm: RenderForm): void => {
    // What was typed goes first, so that it stands in the file.
    before()
      .then(() => ask({ shortId: short.id, renderForm }).unwrap())
      .catch(sayTrouble);
  };
  return (
    <section aria-label={t('shorts.files')} className="flex flex-col items-end gap-1">
      <Menu>
        <MenuButton
          disabled={asking.isLoading}
          className="inline-flex items-center gap-2 rounded border border-ink px-[11px] py-[5px] text-xs font-semibold hover:bg-sheet disabled:opacity-45"
        >
          <Clapperboard size={14} />
          {t('shorts.make-the-file')}
        </MenuButton>
        <MenuItems anchor="bottom end" className="z-50 min-w-[180px] border border-rule bg-sheet py-1 shadow-[0_8px_24px_rgba(35,32,27,.2)]">
          {asked.map(({ shape, platform }) => (
            <MenuItem key={`${shape} ${platform?.id ?? ''}`}>
              <button type="button" className={item} onClick={() => put(platform === null ? { shape } : { shape, platformProfileId: platform.id })}>
                {NAMES[shape]}
                {platform !== null && (
                  <span className="block text-[11px] text-soft">{t('shorts.as-loud-as', { platform: platform.name, loudness: lufs(platform.loudness) })}</span>
                )}
              </button>
            </MenuItem>
          ))}
        </MenuItems>
      </Menu>
      {renders.length > 0 && (
        <ul className="w-[250px] text-[12px]">
          {renders.slice(0, MOST_SHOWN).map((one) => (
            <FileRow key={one.id} render={one} onWatch={() => setWatched(one)} />
          ))}
        </ul>
      )}
      {watched !== null && (
        <Dialog open onClose={() => setWatched(null)} title={`${short.copy.title} · ${NAMES[watched.shape]}`}>
          {/* Its captions are in the picture. */}
          <video controls autoPlay src={`/api/renders/${watched.id}/file`} className="mx-auto max-h-[64vh] max-w-full" />
        </Dialog>
      )}
    </section>
  );
}

function FileRow({ render, onWatch }: { render: RenderView; onWatch: () => void }): ReactNode {
  const [cancel] = api.useCancelRenderMutation();
  const { state, shape, durationMs, bytes, outdated, failure, leftMs } = render;
  const working = state === 'waiting' || state === 'running';
  const name = NAMES[shape];
  return (
    <li className="border-t border-rule py-[5px]">
      <div className="flex items-center gap-2">
        <span className={clsx('min-w-0 flex-1 truncate', outdated && 'text-soft')}>
          {name} <span className="time text-soft">{formatLength(durationMs)}</span>
          {bytes !== null && <span className="text-soft"> · {formatBytes(bytes)}</span>}
          <span className="text-soft"> · {lufs(render.loudness)}</span>
        </span>
        {state === 'done' && (
          <>
            <button type="button" aria-label={t('shorts.watch-file', { name })} title={t('shorts.watch')} onClick={onWatch}>
              <Play size={14} />
            </button>
            <a href={`/api/renders/${render.id}/file`} download aria-label={t('shorts.download-file', { name })} title={t('shorts.download')}>
              <Download size={14} />
            </a>
          </>
        )}
        {working && (
          <button type="button" aria-label={t('shorts.stop-making', { name })} onClick={() => void cancel(render.id).unwrap().catch(sayTrouble)}>
            <X size={14} />
          </button>
        )}
      </div>
      {working && (
        <>
          <ProgressBar fraction={render.fraction} label={t('shorts.making-file', { name })} />
          <span className="text-[11px] text-soft">
            {stageName(state === 'waiting' ? 'waiting' : render.stage)}
            {leftMs !== null && leftMs > 0 && ` · ${t('common.left', { left: timeLeft(leftMs) })}`}
          </span>
        </>
      )}
      {state === 'failed' && <span className="text-madder-text">{failure}</span>}
      {state === 'cancelled' && <span className="text-soft">{t('shorts.file-cancelled')}</span>}
      {outdated && !working && <span className="block text-[11px] text-soft">{t('shorts.the-short-has-changed-since')}</span>}
    </li>
  );
}
