import type { Readable } from 'node:stream';
import { ZipFile } from 'yazl';

/** One file of an archive: how it is read, when its turn has come, or what it says. */
export type ArchiveEntry = { readonly name: string } & ({ readonly bytes: number; readonly read: () => Promise<Readable> } | { readonly text: string });

/** A ZIP that is written while it is read: nothing of it lies in memory. Films are packed already, so they are not packed again. */
export function archiveOf(entries: readonly ArchiveEntry[]): Readable {
  const zip = new ZipFile();
  // What goes wrong with a file breaks the archive off, so that nobody takes half of one for the whole.
  zip.on('error', (error: Error) => (zip.outputStream as Readable).destroy(error));
  for (const entry of entries)
    if ('read' in entry)
      zip.addReadStreamLazy(entry.name, { compress: false, size: entry.bytes }, (taken) => {
        entry.read().then(
          (stream) => taken(null, stream),
          (error: Error) => taken(error, null as unknown as Readable),
        );
      });
    else zip.addBuffer(Buffer.from(entry.text, 'utf8'), entry.name);
  zip.end();
  return zip.outputStream as Readable;
}
