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

/** What was answered under keys, in words of data: as one row of a table of many packets. */
export function answersByKey({ plan, answers }: SentPacket): Record<string, string> {
	return Object.fromEntries(
		questions(plan.fields).flatMap((question): [string, string][] => {
			const field = question.find((one) => answers[one.id] !== undefined);
			if (!field || field.key === '') return [];
			const data = kindOf(field.kind).data(answers[field.id]!);
			return [[field.key, Array.isArray(data) ? data.join(', ') : data]];
		})
	);
}
