import clsx from 'clsx';
import type { ReactNode } from 'react';
import { RichTextarea } from 'rich-textarea';
import { AreaField, Field, inputClass } from './fields.js';

/** A place of the text that is underlined: `from` to `to` (not inside), in UTF-16 units. */
export interface TextMark {
  readonly from: number;
  readonly to: number;
  /** `grave` is drawn stronger. */
  readonly weight: 'grave' | 'slight';
}

interface MarkedFieldProps {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly marks: readonly TextMark[];
  /** One line takes no Enter. */
  readonly rows: number;
  readonly disabled?: boolean;
  readonly aside?: ReactNode;
  readonly hint?: ReactNode;
  /** Alt and M, while typing in it. */
  readonly onMend?: () => void;
}

/** A field of text with places underlined in it. One that cannot be written in has none, and is a plain one. */
export function MarkedField({ label, value, onChange, marks, rows, disabled = false, aside, hint, onMend }: MarkedFieldProps): ReactNode {
  // The text of a marked field is drawn behind it, where the ground of a field that is switched off would cover it.
  if (disabled) return <AreaField label={label} value={value} rows={rows} disabled aside={aside} hint={hint} />;
  return (
    <Field label={label} aside={aside} hint={hint}>
      {(ids) => (
        <RichTextarea
          {...ids}
          value={value}
          rows={rows}
          spellCheck={false}
          style={{ width: '100%', backgroundColor: 'var(--sheet)' }}
          className={clsx(inputClass, rows === 1 ? 'resize-none overflow-hidden' : 'resize-y')}
          onChange={(event) => onChange(rows === 1 ? event.target.value.replace(/\n/g, ' ') : event.target.value)}
          onKeyDown={(event) => {
            if (rows === 1 && event.key === 'Enter') event.preventDefault();
            if (event.altKey && event.key.toLowerCase() === 'm' && onMend !== undefined) {
              event.preventDefault();
              onMend();
            }
          }}
        >
          {(text) => withMarks(text, marks)}
        </RichTextarea>
      )}
    </Field>
  );
}

function withMarks(text: string, marks: readonly TextMark[]): ReactNode {
  const pieces: ReactNode[] = [];
  let at = 0;
  for (const { from, to, weight } of [...marks].sort((a, b) => a.from - b.from)) {
    if (from < at || to > text.length || to === from) continue;
    pieces.push(text.slice(at, from));
    pieces.push(
      <span
        key={from}
        className={
          weight === 'grave' ? 'underline decoration-madder decoration-2 underline-offset-2' : 'underline decoration-saffron decoration-wavy underline-offset-2'
        }
      >
        {text.slice(from, to)}
      </span>,
    );
    at = to;
  }
  return [...pieces, text.slice(at)];
}
