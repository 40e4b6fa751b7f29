import { Fragment, type ReactNode } from 'react';
import type { ChannelView, ScheduleView } from '../../app/api.js';

interface ChannelRowsProps {
  view: ScheduleView;
  clientNames: ReadonlyMap<string, string>;
  columns: number;
  /** Of the line that names a client. */
  className: string;
  children: (channel: ChannelView) => ReactNode;
}

/** A table's body: the channels client by client, each client named above its own. */
export function ChannelRows({ view, clientNames, columns, className, children }: ChannelRowsProps): ReactNode {
  const clientIds = [...new Set(view.channels.map((channel) => channel.clientId))];
  return (
    <tbody>
      {clientIds.map((clientId) => (
        <Fragment key={clientId}>
          <tr>
            <td colSpan={columns} className={`border border-rule bg-band px-2 font-bold ${className}`}>
              <span className="sticky left-2">{clientNames.get(clientId)}</span>
            </td>
          </tr>
          {view.channels.filter((channel) => channel.clientId === clientId).map(children)}
        </Fragment>
      ))}
    </tbody>
  );
}
