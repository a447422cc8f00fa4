const dateFormats = new Map<string, Intl.DateTimeFormat>();
const numberFormats = new Map<string, Intl.NumberFormat>();

function kept<F, O>(made: Map<string, F>, make: (locale: string, options?: O) => F, locale: string, options?: O): F {
	const name = options === undefined ? locale : locale + JSON.stringify(options);
	let one = made.get(name);
	if (!one) made.set(name, (one = make(locale, options)));
	return one;
}

/**
 * Formats of the language (ECMA-402), kept: making one takes a hundred times as long as using it, and a row of a list uses
 * several. There are as many as languages, zones and ways of writing; a name that nobody has checked yet doesn't come here.
 */
export const datesIn = (locale: string, options?: Intl.DateTimeFormatOptions): Intl.DateTimeFormat =>
	kept(dateFormats, (l, o) => new Intl.DateTimeFormat(l, o), locale, options);

export const numbersIn = (locale: string, options?: Intl.NumberFormatOptions): Intl.NumberFormat =>
	kept(numberFormats, (l, o) => new Intl.NumberFormat(l, o), locale, options);
