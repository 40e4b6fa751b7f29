import type { ReactNode } from 'react';
import { api } from '../../app/api.js';
import { didSomething, sayTrouble } from '../../app/undo.js';
import { formatMoment } from '../../texts/formats.js';
import { t } from '../../texts/texts.js';
import { Button } from '../../ui/parts.js';

const EVERYTHING = { clientId: null, channelId: null } as const;

/** Stops posting for everything, or lets it go on; null where there is nothing that posts, or it is not one's to stop. */
export function useStopAll(): { readonly isStopped: boolean; readonly set: (stopped: boolean) => void } | null {
  const isOwner = api.useReadSessionQuery().data?.role === 'owner';
  const { data } = api.useReadPostingQuery();
  const [put] = api.useSetStopMutation();
  if (data === undefined || !isOwner || data.services.length === 0) return null;
  const write = (stopped: boolean): Promise<unknown> => put({ ...EVERYTHING, stopped }).unwrap();
  return {
    isStopped: data.stops.some((stop) => stop.clientId === null),
    set: (stopped) => {
      write(stopped).then(
        () =>
          didSomething(
            stopped ? t('planning.posting-stopped') : t('planning.posting-goes-on'),
            () => write(!stopped),
            () => write(stopped),
          ),
        sayTrouble,
      );
    },
  };
}

/** Says, over the whole width, that nothing goes out. */
export function Stopped(): ReactNode {
  const stop = api.useReadPostingQuery().data?.stops.find((one) => one.clientId === null);
  const all = useStopAll();
  if (stop === undefined) return null;
  return (
    <div role="status" className="flex flex-none flex-wrap items-center gap-3 border-b border-madder bg-madder-tint px-[18px] py-2 text-madder-text">
      <span>{t('planning.posting-is-stopped', { at: formatMoment(stop.stoppedAt), who: stop.stoppedBy })}</span>
      {all !== null && (
        <Button className="ml-auto" onClick={() => all.set(false)}>
          {t('planning.let-posting-go-on')}
        </Button>
      )}
    </div>
  );
}
