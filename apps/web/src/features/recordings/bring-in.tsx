import clsx from 'clsx';
import { FileText, Volume2 } from 'lucide-react';
import { type DragEvent, type ReactNode, useRef, useState } from 'react';
import { api, type ClientView } from '../../app/api.js';
import { useAppDispatch } from '../../app/store.js';
import { Button, ProgressBar } from '../../ui/parts.js';
import { type FilePair, pairFiles, upload } from './upload.js';

interface Bringing {
  readonly id: number;
  readonly pair: FilePair;
  readonly clientName: string;
  readonly state: 'waiting' | 'sending' | 'reading' | 'done' | 'refused';
  readonly fraction: number;
  readonly detail: string;
}

/**
 * Where files are dropped for a client: for the one whose recordings are shown, until another is chosen here. Pairs go up
 * one after the other; each is taken whole or not at all.
 */
export function BringIn({ clients, shownClientId }: { clients: readonly ClientView[]; shownClientId: string }): ReactNode {
  const [picked, setPicked] = useState<{ id: string; whileShown: string } | null>(null);
  const usual = clients.some((one) => one.id === shownClientId) ? shownClientId : (clients[0]?.id ?? '');
  const clientId = picked?.whileShown === shownClientId ? picked.id : usual;
  const [list, setList] = useState<readonly Bringing[]>([]);
  const [over, setOver] = useState(false);
  const [strangers, setStrangers] = useState<readonly string[]>([]);
  const chain = useRef<Promise<void>>(Promise.resolve());
  const nextId = useRef(1);
  const picker = useRef<HTMLInputElement>(null);
  const dispatch = useAppDispatch();

  const change = (id: number, fields: Partial<Bringing>): void => setList((old) => old.map((one) => (one.id === id ? { ...one, ...fields } : one)));
  const take = (files: readonly File[]): void => {
    const { pairs, strangers: unknown } = pairFiles(files);
    setStrangers(unknown);
    const added = pairs.map((pair) => ({
      id: nextId.current++,
      pair,
      clientName: clients.find((one) => one.id === clientId)?.name ?? '',
      state: 'waiting' as const,
      fraction: 0,
      detail: '',
    }));
    setList((old) => [...old.filter((one) => one.state !== 'done'), ...added]);
    for (const one of added) chain.current = chain.current.then(() => send(one.id, one.pair, clientId));
  };
  const send = async (id: number, pair: FilePair, client: string): Promise<void> => {
    change(id, { state: 'sending' });
    const outcome = await upload(`/api/clients/${client}/recordings`, pair, (fraction) =>
      change(id, { fraction, state: fraction >= 1 ? 'reading' : 'sending' }),
    );
    if (outcome.kind === 'refused') change(id, { state: 'refused', detail: outcome.problem.detail });
    else {
      const repairs = outcome.recording.transcript?.repairCount ?? 0;
      change(id, { state: 'done', detail: repairs === 0 ? 'brought in' : `brought in, ${repairs} ${repairs === 1 ? 'place' : 'places'} repaired` });
      dispatch(api.util.invalidateTags(['recordings', 'clients']));
    }
  };
  const onDrop = (event: DragEvent): void => {
    event.preventDefault();
    setOver(false);
    take([...event.dataTransfer.files]);
  };

  return (
    <section aria-label="Bring in recordings" className="border-b border-rule px-[18px] py-4">
      <div
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={onDrop}
        className={clsx('flex flex-wrap items-center gap-4 border border-dashed px-5 py-4', over ? 'border-madder bg-madder-tint' : 'border-edge bg-sheet')}
      >
        <div className="min-w-[280px] flex-1">
          <b className="text-[14px]">Drop recordings here</b>
          <p className="text-soft">
            A transcript (WebVTT, SubRip, podcast JSON, or text with [mm:ss]), a sound file, or both. Files of the same name belong together.
          </p>
        </div>
        <label className="flex items-center gap-2">
          for
          <select
            aria-label="Client"
            value={clientId}
            onChange={(event) => setPicked({ id: event.target.value, whileShown: shownClientId })}
            className="rounded border border-edge bg-sheet px-2 py-[5px] font-semibold"
          >
            {clients.map((client) => (
              <option key={client.id} value={client.id}>
                {client.name}
              </option>
            ))}
          </select>
        </label>
        <Button tone="fill" onClick={() => picker.current?.click()}>
          Choose files
        </Button>
        <input
          ref={picker}
          type="file"
          multiple
          hidden
          data-testid="files"
          onChange={(event) => {
            take([...(event.target.files ?? [])]);
            event.target.value = '';
          }}
        />
      </div>
      {strangers.length > 0 && (
        <p role="alert" className="mt-2 border-l-4 border-madder pl-3">
          Left aside: {strangers.join(', ')}. A transcript ends in .vtt, .srt, .json or .txt; a sound in .mp3, .m4a, .wav, .flac, .ogg or the like.
        </p>
      )}
      {list.length > 0 && (
        <ul className="mt-3 divide-y divide-rule border-y border-rule">
          {list.map((one) => (
            <li key={one.id} className="grid grid-cols-[1fr_150px_1.4fr] items-center gap-4 py-2">
              <span className="min-w-0">
                <b className="block truncate">{one.pair.base}</b>
                <span className="flex gap-3 text-[11.5px] text-soft">
                  {one.pair.transcript !== null && (
                    <span className="flex items-center gap-1">
                      <FileText size={12} />
                      transcript
                    </span>
                  )}
                  {one.pair.sound !== null && (
                    <span className="flex items-center gap-1">
                      <Volume2 size={12} />
                      sound
                    </span>
                  )}
                  {one.clientName}
                </span>
              </span>
              <ProgressBar fraction={one.state === 'done' ? 1 : one.fraction} label={`Bringing in ${one.pair.base}`} />
              <span className={clsx(one.state === 'refused' ? 'text-madder-text' : 'text-soft')} role={one.state === 'refused' ? 'alert' : 'status'}>
                {sayState(one)}
              </span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

function sayState(one: Bringing): string {
  if (one.state === 'waiting') return 'waits its turn';
  if (one.state === 'sending') return `${Math.round(one.fraction * 100)} % sent`;
  if (one.state === 'reading') return 'being read';
  return one.state === 'refused' ? `Refused: ${one.detail}` : one.detail;
}
