import Papa from 'papaparse';

const FIRST = [
	'Tess',
	'Ola',
	'Ravi',
	'Idris',
	'Mabel',
	'Joan',
	'Henrik',
	'Sanne',
	'Lucia',
	'Owen',
	'Petra',
	'Noor',
	'Bram'
];
const LAST = [
	'Marlow',
	'Brandt',
	'Menon',
	'Kowal',
	'Hartley',
	'Petrakis',
	'Quill',
	'Achterberg',
	'Marchetti',
	'Vaughan',
	'Keane'
];

/**
 * The worked example of a batch, as lines of a sheet: 64 stewards, 3 without an address, 1 with one that can't be right,
 * 2 with the same, 5 who are not confirmed, and 1 with the sender's own.
 */
export function stewards(): string[][] {
	const rows = Array.from({ length: 64 }, (_, i) => [
		`${FIRST[i % FIRST.length]} ${LAST[(i * 7) % LAST.length]}`,
		`s${i}@post.example`,
		'confirmed'
	]);
	for (const n of [3, 17, 40]) rows[n]![1] = '';
	rows[22]![1] = 'tess.post.example';
	rows[51]![1] = rows[8]![1]!;
	for (const n of [1, 12, 30, 33, 60]) rows[n]![2] = 'asked';
	rows[45]![1] = 'odile@brindlevale.example';
	return [['Full name', 'E-Mail', 'Status'], ...rows];
}

/** Lines as a file of comma-separated values, UTF-8. */
export const csv = (lines: string[][]): Uint8Array => new TextEncoder().encode(Papa.unparse(lines));
