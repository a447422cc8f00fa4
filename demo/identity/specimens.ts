/** Made-up documents of made-up people, with zones as ICAO 9303, parts 4 to 6, has them; the issuer is the standard's own Utopia. */

export interface Specimen {
	kind: 'passport' | 'identity card';
	surname: string;
	given: string;
	number: string;
	/** ISO 8601 */
	born: string;
	expires: string;
	sex: 'F' | 'M' | '<';
	issuer?: string;
	/** as printed in the open, where that is not what the zone has */
	printed?: string;
}

/** ICAO 9303-3 §4.9: values by 7, 3, 1, to ten. */
export function checkDigit(text: string): string {
	const sum = [...text].reduce(
		(all, letter, i) => all + (letter === '<' ? 0 : parseInt(letter, 36)) * [7, 3, 1][i % 3]!,
		0
	);
	return String(sum % 10);
}

const short = (day: string) => day.slice(2).replaceAll('-', '');
const pad = (text: string, width: number) => text.slice(0, width).padEnd(width, '<');
const zoned = (name: string) => name.toUpperCase().replaceAll(/[ -]/g, '<');

/** The lines of its zone: two of 44 for a passport, three of 30 for a card. */
export function zoneOf({ kind, surname, given, number, born, expires, sex, issuer = 'UTO' }: Specimen): string[] {
	const names = `${zoned(surname)}<<${zoned(given)}`;
	const digits = pad(number, 9) + checkDigit(pad(number, 9));
	const [b, e] = [short(born) + checkDigit(short(born)), short(expires) + checkDigit(short(expires))];
	if (kind === 'passport') {
		const personal = pad('', 14) + '<';
		const composite = checkDigit(digits + b + e + pad('', 14) + '0');
		return [`P<${issuer}${pad(names, 39)}`, `${digits}${issuer}${b}${sex}${e}${personal}${composite}`];
	}
	const first = `I<${issuer}${digits}${pad('', 15)}`;
	const composite = checkDigit(digits + pad('', 15) + b + e + pad('', 11));
	return [first, `${b}${sex}${e}${issuer}${pad('', 11)}${composite}`, pad(names, 30)];
}
