/** What keys are called: by what they are for; one that does not sign any more has the moment behind it. */

export type KeyName = 'seal' | 'stamp' | `notary-${string}`;

const USE = { seal: 'sealing', stamp: 'time-stamping', notary: 'a notary’s acts' } as const;
type Use = keyof typeof USE;

/** What it is for, by the beginning of its name. */
export const useOf = (name: string): Use => name.split('-')[0] as Use;

const ASIDE = '-until-';

/** A moment (ISO 8601), to the second, as it stands in a name: names go in the order of time. */
export const inName = (at: string): string => at.slice(0, 19).replaceAll(/[:T]/g, '-');

/** Its name from now on: for what it has signed. */
export const asideName = (name: string, now: Date): string => `${name}${ASIDE}${inName(now.toISOString())}`;

/** Whether it does not sign any more. */
export const isAside = (name: string): boolean => name.includes(ASIDE);

/** What it is for, in words. */
export function nameInWords(name: string): string {
	const use = USE[useOf(name)];
	return isAside(name) ? `earlier ${use}` : use;
}
