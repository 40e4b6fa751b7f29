import type { SiftContext } from '../context.js';
import { charge } from './charge.js';
import { currency } from './currency.js';
import { delivery } from './delivery.js';
import { opening } from './opening.js';
import type { Language } from '../../text/language-name.js';
import { NEED_ENGLISH, type SignalName, SIGNALS } from '../types.js';
import type { Signal } from './signal.js';
import { standsAlone } from './stands-alone.js';
import { substance } from './substance.js';

/** What cannot be known in a language counts as ordinary. */
const unknown = (name: SignalName, language: Language): Signal => ({
  name,
  value: () => 50,
  explain: () => ({ sentence: `Cannot be known: the talk is in ${language.name}`, evidence: [] }),
});

/** The six signals of a recording, in their order. */
export function buildSignals(context: SiftContext): readonly Signal[] {
  const { language } = context;
  const all = [opening, standsAlone, substance, charge, delivery, currency];
  return all.map((signal, k) => (language !== null && NEED_ENGLISH.includes(SIGNALS[k]!) ? unknown(SIGNALS[k]!, language) : signal(context)));
}
