import Papa from 'papaparse';
import { canonicalJson } from '../../core/audit';
import { inWords, kindOf, questions } from '../../core/field';
import { localeOf, personIn, type SentPacket } from '../../core/packet';

interface Row {
	key: string;
	label: string;
	kind: string;
	person: string;
	data: string | string[];
	shown: string;
}

/** One row a question that has been answered: its key (else its id), the typed value, and the value in words. */
function rowsOf(packet: SentPacket): Row[] {
	const { plan } = packet;
	return questions(plan.fields).flatMap((question): Row[] => {
		const field = question.find((f) => packet.answers[f.id] !== undefined);
		if (!field) return [];
		const answer = packet.answers[field.id]!;
		return [
			{
				key: field.key || field.id,
				label: field.label,
				kind: field.kind,
				person: (field.person && personIn(plan, field.person)?.name) ?? '',
				data: kindOf(field.kind).data(answer),
				shown: inWords(plan, field, answer, localeOf(plan))
			}
		];
	});
}

/** The answers as JSON: key to typed value. Numbers stand as text in plain decimal notation, so that none is rounded. */
export function answersAsJson(packet: SentPacket): string {
	return canonicalJson(Object.fromEntries(rowsOf(packet).map((row) => [row.key, row.data])));
}

/** A cell that a spreadsheet would run as a formula, led by an apostrophe; a negative number is none. */
export function harmlessCell(cell: string): string {
	return /^[=+\-@\t\r]/.test(cell) && !/^-?\d+(\.\d+)?$/.test(cell) ? `'${cell}` : cell;
}

/** The answers as CSV (RFC 4180), a row each. A cell that a spreadsheet would run as a formula is led by an apostrophe. */
export function answersAsCsv(packet: SentPacket): string {
	const rows = rowsOf(packet).map((row) => ({
		...row,
		data: Array.isArray(row.data) ? row.data.join('; ') : row.data
	}));
	const columns = ['key', 'label', 'kind', 'person', 'data', 'shown'];
	const safe = rows.map((row) =>
		Object.fromEntries(Object.entries(row).map(([name, cell]) => [name, harmlessCell(cell)]))
	);
	return `${Papa.unparse({ fields: columns, data: safe }, { newline: '\r\n' })}\r\n`;
}
