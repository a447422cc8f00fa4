import { answerAs, askedPlan } from '../../core/intake';
import { plainKey, questions, type Answers } from '../../core/field';
import { folded } from '../../core/folded';
import { isAddress, localeOf, type Plan } from '../../core/packet';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { cellName } from '../../core/sheet';
import { readSheet } from '../batches';
import { inTransaction } from '../db';
import { csvForSpreadsheets } from '../csv';
import type { House } from '../house';
import { newToken } from '../ids';
import { readIntake, templatePlan } from './store';

/** People on a sheet, each with a link of their own, and what is known of them before. */

const NAME = ['name', 'full name', 'who'];
const EMAIL = ['email', 'e-mail', 'mail', 'e-mail address', 'email address', 'address'];

/**
 * Takes a sheet of people in, in the place of the one before: a column each for name and address, others by the key or label of a
 * question. Refuses a sheet without these two, and a row whose address can't be one, or stands twice; then nothing is changed.
 * @returns the same list as CSV, with each one's link; links are kept as hashes, and can't be shown again
 */
export async function invitePeople(
	house: House,
	id: string,
	bytes: Uint8Array
): Promise<{ csv: string; people: number } | Refusal> {
	const intake = readIntake(house, id);
	if (isRefusal(intake)) return intake;
	const template = templatePlan(house, intake, intake.setting.version);
	if (isRefusal(template)) return template;
	const read = await readSheet(bytes);
	if (isRefusal(read)) return read;
	const { sheet } = read;
	const plan = askedPlan(template.plan, intake.setting);
	const at = (words: string[]) => sheet.columns.findIndex((head) => words.includes(folded(head.trim())));
	const [name, email] = [at(NAME), at(EMAIL)];
	if (name < 0 || email < 0) return refuse('sheet-no-people', 'The sheet needs a column “Name” and a column “E-mail”.');
	const taken = new Map<string, number>();
	const people: { name: string; email: string; known: Answers; token: string; hash: string }[] = [];
	for (const [n, row] of sheet.rows.entries()) {
		const address = (row[email] ?? '').trim();
		if (!isAddress(address))
			return refuse(
				'bad-address',
				`Cell ${cellName(sheet, n, email)}: “${address}” can't be an e-mail address. Nothing was changed.`
			);
		const before = taken.get(address.toLowerCase());
		if (before !== undefined)
			return refuse(
				'twice',
				`${address} stands in lines ${sheet.lines[before]} and ${sheet.lines[n]}. Nothing was changed.`
			);
		taken.set(address.toLowerCase(), n);
		people.push({
			name: (row[name] ?? '').trim(),
			email: address,
			known: knownOf(plan, intake.setting.starter, sheet.columns, row),
			...newToken()
		});
	}
	inTransaction(house.db, () => {
		house.db.prepare('DELETE FROM intake_people WHERE intake = ?').run(id);
		const keep = house.db.prepare(
			'INSERT INTO intake_people (intake, n, token_hash, name, email, known) VALUES (?, ?, ?, ?, ?, ?)'
		);
		people.forEach((one, n) => keep.run(id, n, one.hash, one.name, one.email, JSON.stringify(one.known)));
	});
	const rows = people.map(({ token }, n) => [...sheet.rows[n]!, `${house.config.origin}/i/${intake.slug}?k=${token}`]);
	return { csv: csvForSpreadsheets([...sheet.columns, 'Link'], rows), people: people.length };
}

/** What a row says of the starter's questions, by the head of its column. What can't be read as an answer is left for them. */
function knownOf(plan: Plan, starter: string, columns: string[], row: string[]): Answers {
	const known: Answers = {};
	for (const question of questions(plan.fields)) {
		const field = question.find(({ person }) => person === starter);
		if (!field || field.key === '') continue;
		const at = columns.findIndex((head) => plainKey(head) === field.key || folded(head.trim()) === folded(field.label));
		const text = at < 0 ? '' : (row[at] ?? '').trim();
		const answer = text === '' ? null : answerAs(field, text, localeOf(plan));
		if (answer) for (const twin of question) if (twin.person === starter) known[twin.id] = answer;
	}
	return known;
}

export function peopleOn(house: House, id: string): number {
	return house.db
		.prepare<[string], number>('SELECT coalesce(max(n) + 1, 0) FROM intake_people WHERE intake = ?')
		.pluck()
		.get(id)!;
}
