import { canonicalJson } from '../../core/audit';
import { inWords, kindOf, questions } from '../../core/field';
import { localeOf, personIn, type SentPacket } from '../../core/packet';
import { harmlessCsv } from '../csv';

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

/** The answers as CSV, a row each; nothing in it runs as a formula. */
export function answersAsCsv(packet: SentPacket): string {
	const columns = ['key', 'label', 'kind', 'person', 'data', 'shown'] as const;
	const cell = (value: string | string[]) => (Array.isArray(value) ? value.join('; ') : value);
	return harmlessCsv(
		[...columns],
		rowsOf(packet).map((row) => columns.map((name) => cell(row[name])))
	);
}
