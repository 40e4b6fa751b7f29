import { useKeys } from '../../app/keys.js';
import { sayTrouble } from '../../app/undo.js';
import { t } from '../../texts/texts.js';

interface ScheduleKeys {
  readonly onLayOut: () => void;
  readonly onWeek: (by: number) => void;
  readonly onToday: () => void;
}

export function useScheduleKeys({ onLayOut, onWeek, onToday }: ScheduleKeys): void {
  useKeys([
    { key: 'l', label: t('planning.lay-out-shorts-2'), group: t('common.schedule'), run: onLayOut },
    { key: ',', label: t('planning.earlier'), group: t('common.schedule'), run: () => onWeek(-1) },
    { key: '.', label: t('planning.later'), group: t('common.schedule'), run: () => onWeek(1) },
    { key: 't', label: t('planning.this-week'), group: t('common.schedule'), run: onToday },
    {
      key: 'm',
      label: t('planning.pick-up-the-focused-post-or'),
      group: t('planning.move'),
      run: () => sayTrouble(new Error(t('planning.go-to-a-post-or-a'))),
    },
    // What follows is listened to by the drag itself, see `useBoardDrag`.
    { key: 'ArrowLeft', label: t('planning.a-day-earlier'), group: t('planning.move') },
    { key: 'ArrowRight', label: t('planning.a-day-later'), group: t('planning.move') },
    { key: 'ArrowUp', label: t('planning.the-channel-above'), group: t('planning.move') },
    { key: 'ArrowDown', label: t('planning.the-channel-below'), group: t('planning.move') },
    { key: 'p', label: t('planning.put-it-down-here'), group: t('planning.move') },
    { key: 'Escape', label: t('planning.put-it-back'), group: t('planning.move') },
  ]);
}
