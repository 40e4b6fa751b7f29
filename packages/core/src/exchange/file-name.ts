/**
 * A file name that is safe on every system and tells what it is: parts joined by " - ", without characters that file
 * systems refuse, no leading dot, no reserved name, at most 120 characters before the ending.
 * @example fileName(['Harbour Bread', 'plan', '4 May'], 'csv') // 'Harbour Bread - plan - 4 May.csv'
 */
export function fileName(parts: readonly string[], ending: string): string {
  const clean = parts
    .map((part) =>
      part
        .normalize('NFC')
        .replace(/[\p{Cc}\p{Cf}]+/gu, '')
        .replace(/[\\/:*?"<>|%]+/g, ' ')
        .replace(/\s+/g, ' ')
        .replace(/^[\s.]+|[\s.]+$/g, ''),
    )
    .filter((part) => part !== '')
    .join(' - ');
  const short = [...clean]
    .slice(0, 120)
    .join('')
    .replace(/[\s.]+$/, '');
  const reserved = /^(?:con|prn|aux|nul|com\d|lpt\d)$/i.test(short);
  return `${short === '' || reserved ? `sift-reel${reserved ? ` ${short}` : ''}` : short}.${ending}`;
}
