import type { CountedWait } from './counting';

/**
 * What waits are counted by. 'among': template, type and sender, together; 'version': one version of a template; 'stop': a place of a
 * template, 'stop at': the same for one part of the day; the others say what they are.
 */
export const FACETS = [
	'among',
	'version',
	'stop',
	'stop at',
	'duty',
	'delivery',
	'language',
	'part of day',
	'hour'
] as const;
export type Facet = (typeof FACETS)[number];

/** What is asked about at once: of one template, one type, one account that sends; '' is any. */
export interface Among {
	template: string;
	type: string;
	sender: string;
}
export const ANY: Among = { template: '', type: '', sender: '' };

/** The value of the facet 'among'. A type is anything somebody typed, so it comes last. */
export const amongValue = ({ template, sender, type }: Among): string => `${template}/${sender}/${type}`;

/** Every way in which something like this can be asked about: each of the three, or any. */
export const waysToAsk = ({ template, type, sender }: Among): Among[] =>
	[ANY]
		.flatMap((one) => (template ? [one, { ...one, template }] : [one]))
		.flatMap((one) => (type ? [one, { ...one, type }] : [one]))
		.flatMap((one) => (sender ? [one, { ...one, sender }] : [one]));

/** The value of the facet 'version'. */
export const versionValue = (template: string, version: string | number): string => `${template}/${version}`;
/** The value of the facet 'stop'. @param among with a template: that is whose place it is */
export const stopValue = (person: string, among: Among): string => `${person}/${amongValue(among)}`;
/** The value of the facet 'stop at'. */
export const stopAtValue = (template: string, person: string, part: string): string => `${person}/${template}/${part}`;

/** What it is counted by, and as what. */
export function facetsOf(wait: CountedWait): [Facet, string][] {
	const { of, person, template, version, duty, delivery, language, partOfDay, hour } = wait;
	const ways = waysToAsk(wait);
	if (of === 'packet')
		return [
			...ways.map((one): [Facet, string] => ['among', amongValue(one)]),
			...(template ? [['version', versionValue(template, version)] as [Facet, string]] : []),
			['hour', hour]
		];
	// since it was opened, or reminded: only forecasts ask for these
	const asked = of === 'part' ? ways.filter((one) => one.template !== '') : template ? [{ ...ANY, template }] : [];
	const kinds: [Facet, string][] = [
		['among', amongValue(ANY)],
		...(template ? [['stop at', stopAtValue(template, person, partOfDay)] as [Facet, string]] : []),
		...asked.map((one): [Facet, string] => ['stop', stopValue(person, one)])
	];
	if (of !== 'part') return kinds;
	return [...kinds, ['duty', duty], ['delivery', delivery], ['language', language], ['part of day', partOfDay]];
}
