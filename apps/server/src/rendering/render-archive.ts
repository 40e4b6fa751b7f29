import type { Readable } from 'node:stream';
import { ZipFile } from 'yazl';

/** One file of an archive: where it lies, or what it says. */
export type ArchiveEntry = { readonly name: string } & ({ readonly path: string } | { readonly text: string });

/** A ZIP that is written while it is read: nothing of it lies in memory. Films are packed already, so they are not packed again. */
export function archiveOf(entries: readonly ArchiveEntry[]): Readable {
  const zip = new ZipFile();
  // What goes wrong with a file breaks the archive off, so that nobody takes half of one for the whole.
  zip.on('error', (error: Error) => (zip.outputStream as Readable).destroy(error));
  for (const entry of entries)
    if ('path' in entry) zip.addFile(entry.path, entry.name, { compress: false });
    else zip.addBuffer(Buffer.from(entry.text, 'utf8'), entry.name);
  zip.end();
  return zip.outputStream as Readable;
}
