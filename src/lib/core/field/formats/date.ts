import { datesIn } from '../../intl';
import { Type } from '@sinclair/typebox';
import { dayOf } from '../../rule';

export const DATE_FORMATS = ['long', 'medium', 'short', 'iso'] as const;
/** The setting by which a field says how its dates are written. */
export const dateSettings = {
	format: Type.Optional(Type.Union(DATE_FORMATS.map((format) => Type.Literal(format))))
};

export type DateFormat = (typeof DATE_FORMATS)[number];

const STYLES: Record<Exclude<DateFormat, 'iso'>, Intl.DateTimeFormatOptions> = {
	long: { day: 'numeric', month: 'long', year: 'numeric' },
	medium: { day: 'numeric', month: 'short', year: 'numeric' },
	short: { day: '2-digit', month: '2-digit', year: 'numeric' }
};

/** A day (ISO 8601) as people of that language write it. */
export function dayShown(day: string, format: DateFormat, locale: string): string {
	if (format === 'iso') return day;
	return formatter(format, locale).format(new Date(`${day}T12:00:00Z`));
}

/** What somebody typed as a day, in any of the formats of that language; null where it is none. */
export function dayRead(typed: string, locale: string): string | null {
	const text = typed.trim().replace(/[\s\u00a0\u202f]+/gu, ' ');
	if (dayOf(text)) return text;
	for (const format of ['short', 'medium', 'long'] as const) {
		const day = readAs(text, format, locale);
		if (day) return day;
	}
	return null;
}

function readAs(text: string, format: Exclude<DateFormat, 'iso'>, locale: string): string | null {
	const show = formatter(format, locale);
	const parts = show.formatToParts(new Date('2026-11-23T12:00:00Z'));
	const order: string[] = [];
	const pattern = parts
		.map((part) => {
			if (part.type === 'day' || part.type === 'month' || part.type === 'year') {
				order.push(part.type);
				return part.type === 'year' ? '(\\d{4})' : part.type === 'day' || format === 'short' ? '(\\d{1,2})' : '(\\S+?)';
			}
			return part.value.replace(/[\s\u00a0\u202f]+/gu, ' ').replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
		})
		.join('');
	const found = new RegExp(`^${pattern}$`, 'iu').exec(text);
	if (!found) return null;
	const of = (type: string) => found[order.indexOf(type) + 1]!;
	const month = format === 'short' ? Number(of('month')) : monthOf(of('month'), format, locale);
	if (month === 0) return null;
	const day = `${of('year')}-${String(month).padStart(2, '0')}-${of('day').padStart(2, '0')}`;
	return dayOf(day) ? day : null;
}

function monthOf(name: string, format: 'long' | 'medium', locale: string): number {
	for (let month = 1; month <= 12; month++) {
		const part = formatter(format, locale)
			.formatToParts(new Date(Date.UTC(2026, month - 1, 15, 12)))
			.find((p) => p.type === 'month')!.value;
		if (part.toLocaleLowerCase(locale) === name.toLocaleLowerCase(locale)) return month;
	}
	return 0;
}

const formatter = (format: Exclude<DateFormat, 'iso'>, locale: string): Intl.DateTimeFormat =>
	datesIn(locale, { ...STYLES[format], timeZone: 'UTC' });
