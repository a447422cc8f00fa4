import { lookup } from 'node:dns';
import { BlockList, isIP, type LookupFunction } from 'node:net';
import { refuse, type Refusal } from '../../core/refusal';
import { note, type Doer } from '../office-record';
import type { House } from '../house';
import { readSetting, writeSetting } from '../settings';

/** Where messages may go: what leads into the own network is refused, unless an owner lists it. */

/** Addresses that are nobody's outside: RFC 6890's registries, and IPv4 within IPv6. */
const INSIDE = new BlockList();
for (const [net, bits] of [
	['0.0.0.0', 8],
	['10.0.0.0', 8],
	['100.64.0.0', 10],
	['127.0.0.0', 8],
	['169.254.0.0', 16],
	['172.16.0.0', 12],
	['192.0.0.0', 24],
	['192.0.2.0', 24],
	['192.168.0.0', 16],
	['198.18.0.0', 15],
	['198.51.100.0', 24],
	['203.0.113.0', 24],
	['224.0.0.0', 3]
] as const)
	INSIDE.addSubnet(net, bits, 'ipv4');
for (const [net, bits] of [
	['::', 96],
	['64:ff9b::', 96],
	['100::', 64],
	['2001:db8::', 32],
	['2002::', 16],
	['fc00::', 7],
	['fe80::', 10],
	['ff00::', 8]
] as const)
	INSIDE.addSubnet(net, bits, 'ipv6');

/** Whether an IP address leads into a network of one's own, or nowhere. */
export function isInside(ip: string): boolean {
	const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(ip)?.[1];
	if (mapped) return isInside(mapped);
	const version = isIP(ip);
	return version === 0 || INSIDE.check(ip, version === 4 ? 'ipv4' : 'ipv6');
}

/** Hosts of the own network that an owner has listed; of the demo its own, where its receiver is. */
export function listedHosts(house: House): string[] {
	const listed = JSON.parse(readSetting(house.db, 'hook-hosts') ?? '[]') as string[];
	return house.config.demo ? [...listed, new URL(house.config.origin).host] : listed;
}

const MOST_HOSTS = 50;

/** What an owner permits of the own network: hosts, with a port where it isn't the usual one. */
export function listHosts(house: House, by: Doer, hosts: string[]): void {
	const clean = [...new Set(hosts.map((host) => host.trim().toLowerCase()).filter(Boolean))].slice(0, MOST_HOSTS);
	const from = JSON.parse(readSetting(house.db, 'hook-hosts') ?? '[]') as string[];
	note(house, by, { type: 'SettingsChanged', what: 'hosts of hooks', from: { hosts: from }, to: { hosts: clean } });
	writeSetting(house.db, 'hook-hosts', JSON.stringify(clean));
}

/**
 * Judges an address before anything is kept; where a name leads is judged at each delivery. Refuses `bad-hook-address`,
 * `hook-not-safe`, `hook-inside`.
 */
export function judgeAddress(house: House, address: string): URL | Refusal {
	let url: URL;
	try {
		url = new URL(address.trim());
	} catch {
		return refuse('bad-hook-address', 'That is no address. It begins with https:// …', 'address');
	}
	if (url.username || url.password || url.hash || !['https:', 'http:'].includes(url.protocol))
		return refuse(
			'bad-hook-address',
			'The address begins with https://, without a user, a password or a #.',
			'address'
		);
	if (listedHosts(house).includes(url.host)) return url;
	if (url.protocol !== 'https:')
		return refuse('hook-not-safe', 'Messages go by https:// only, so that nobody reads them on their way.', 'address');
	const host = url.hostname.replace(/^\[(.*)\]$/, '$1');
	const local =
		host === 'localhost' || host.endsWith('.localhost') || host.endsWith('.local') || host.endsWith('.internal');
	if (local || (isIP(host) && isInside(host)))
		return refuse('hook-inside', 'This address leads into your own network. An owner can list its host.', 'address');
	return url;
}

/** Finds where a name leads, and nothing that leads inside: judged when it is connected to, so that no name can turn round after it was judged. */
export const lookupOutside: LookupFunction = (host, options, done) => {
	lookup(host, { ...options, all: true }, (error, found) => {
		if (error) return done(error, '', 0);
		const outside = found.filter(({ address }) => !isInside(address));
		if (outside.length === 0)
			return done(Object.assign(new Error(`${host} leads into your own network`), { code: 'EINSIDE' }), '', 0);
		if (options.all) return (done as (error: null, all: typeof outside) => void)(null, outside);
		done(null, outside[0]!.address, outside[0]!.family);
	});
};
