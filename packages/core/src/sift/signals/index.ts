import type { SiftContext } from '../context.js';
import { charge } from './charge.js';
import { currency } from './currency.js';
import { delivery } from './delivery.js';
import { opening } from './opening.js';
import type { Signal } from './signal.js';
import { standsAlone } from './stands-alone.js';
import { substance } from './substance.js';

/** The six signals of a recording, in their order. */
export function buildSignals(context: SiftContext): readonly Signal[] {
  return [opening(context), standsAlone(context), substance(context), charge(context), delivery(context), currency(context)];
}
