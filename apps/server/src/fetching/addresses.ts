import ipaddr from 'ipaddr.js';

/** IPv4 addresses as IPv6 carries them inside: translated (RFC 6052), by relay (RFC 3056), by tunnel (RFC 4380). */
const CARRIERS = new Set(['rfc6145', 'rfc6052', '6to4', 'teredo']);

/**
 * Whether an address is one of the public internet. All that IANA's registries of special-purpose addresses (RFC 6890) set apart is
 * not: loopback, private, link-local, carrier-grade, multicast, documentation, benchmarks, and IPv6 that carries an IPv4 address.
 */
export function isPublicAddress(address: string): boolean {
  if (!ipaddr.isValid(address)) return false;
  const parsed = ipaddr.process(address); // ::ffff:127.0.0.1 is 127.0.0.1
  const range = parsed.range();
  if (CARRIERS.has(range)) return false;
  if (parsed.kind() === 'ipv6') return range === 'unicast' && parsed.match(GLOBAL_UNICAST, 3);
  return range === 'unicast';
}

/** What is given out of IPv6 lies in 2000::/3; what is outside of it is nobody's yet (RFC 4291, section 2.4). */
const GLOBAL_UNICAST = ipaddr.parse('2000::');

/** Name of a host as `net` takes it: a literal IPv6 address without its brackets. */
export const bareHost = (hostname: string): string => hostname.replace(/^\[|\]$/g, '');
