import { numbersIn } from '../../intl';
import { Type } from '@sinclair/typebox';
import { Dec, decimal } from '../../rule';

/** ISO 4217 codes a field can be given; `none` is not among them, it is the absence of one. */
export const CURRENCIES = ['EUR', 'GBP', 'CHF', 'USD', 'SEK', 'DKK', 'NOK', 'PLN', 'CZK', 'HUF', 'RON'] as const;

/** The settings by which a field says how its numbers are written. */
export const numberSettings = {
	decimals: Type.Optional(Type.Integer({ minimum: 0, maximum: 6 })),
	currency: Type.Optional(Type.Union(CURRENCIES.map((code) => Type.Literal(code)))),
	money: Type.Optional(Type.Union([Type.Literal('symbol'), Type.Literal('code')]))
};

export interface NumberFormat {
	/** digits after the separator, shown and at most taken; without it, as many as there are */
	decimals?: number;
	/** ISO 4217 */
	currency?: string;
	/** how the currency is written */
	money?: 'symbol' | 'code';
}

/** A number (plain decimal notation) as people of that language write it. Exact: never through a binary float. */
export function numberShown(number: string, format: NumberFormat, locale: string): string {
	const digits =
		format.decimals === undefined
			? { minimumFractionDigits: number.split('.')[1]?.length ?? 0, maximumFractionDigits: 20 }
			: { minimumFractionDigits: format.decimals, maximumFractionDigits: format.decimals };
	const money = format.currency
		? ({
				style: 'currency',
				currency: format.currency,
				currencyDisplay: format.money === 'code' ? 'code' : 'narrowSymbol'
			} as const)
		: {};
	// a string is taken exactly (ECMA-402, Intl mathematical value); the type knows numbers only
	return numbersIn(locale, { ...money, ...digits, useGrouping: true }).format(number as unknown as number);
}

/** What a language writes for a currency: its signs (as `UK£` or `US$`, where the bare one is another's), any sign, any code. */
const moneyOf = new Map<string, RegExp>();
function moneyIn(locale: string): RegExp {
	const known = moneyOf.get(locale);
	if (known) return known;
	const signs = CURRENCIES.map((currency) => {
		const shown = new Intl.NumberFormat(locale, { style: 'currency', currency, currencyDisplay: 'narrowSymbol' });
		return shown.formatToParts(1).find((part) => part.type === 'currency')!.value;
	});
	const words = [...new Set([...signs, 'kr', 'Kč', 'zł', 'Ft', 'lei'])].sort((a, b) => b.length - a.length);
	const escaped = words.map((word) => word.replace(/[$.]/g, '\\$&'));
	const money = new RegExp(`(${escaped.join('|')})\\.?|\\p{Sc}|\\b[A-Z]{3}\\b`, 'gu');
	moneyOf.set(locale, money);
	return money;
}

/** What somebody typed as a plain decimal number, read as that language writes it; null where it is none. */
export function numberRead(typed: string, locale: string): string | null {
	const parts = numbersIn(locale, { useGrouping: true }).formatToParts(-1234567.8);
	const separator = (type: string) => parts.find((p) => p.type === type)?.value ?? '';
	const point = separator('decimal');
	const group = separator('group');
	let text = typed
		.replace(/[\u2212\u2012\u2013]/g, '-')
		.replace(moneyIn(locale), '')
		.replace(/[\s\u00a0\u202f\u200e\u200f]/gu, '');
	if (group.trim() !== '') {
		const mark = group === '’' ? /[’']/g : group;
		const [whole, ...rest] = text.split(point);
		// a group mark stands only before three digits, or where this language puts it; elsewhere it was meant as something else
		const size = parts.filter((p) => p.type === 'integer').at(-2)?.value.length ?? 3;
		const grouped = new RegExp(`^-?\\d{1,3}([’'.,]\\d{${size}})*[’'.,]\\d{3}$`);
		if (/[’'.,]/.test(whole!) && !grouped.test(whole!)) return null;
		text = [whole!.replaceAll(mark as string, ''), ...rest].join(point);
	}
	text = text.replace(point, '.').replace(/^\./, '0.').replace(/^-\./, '-0.').replace(/\.$/, '');
	const value = decimal(text);
	return value === null ? null : plainNumber(value, text);
}

/** Plain notation, keeping the decimals that were written. */
function plainNumber(value: Dec, text: string): string {
	const places = text.split('.')[1]?.length ?? 0;
	const plain = value.toFixed(places);
	return /^-0(\.0*)?$/.test(plain) ? plain.slice(1) : plain;
}
