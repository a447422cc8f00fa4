import { RetentionRule } from '../../core/keeping';
import { isRefusal, refuse, type Refusal } from '../../core/refusal';
import { border } from '../border';
import { inTransaction } from '../db';
import type { House } from '../house';
import { newId } from '../ids';
import { queue } from '../jobs/outbox';
import { note, type Doer } from '../office-record';
import { retentionRules } from '../packets/kept';

/** The office's rules of how long something is kept. Each change is in the office's record, and has everything reckoned anew by a job. */

const ruleBorder = border(RetentionRule);

/** Adds one, or changes the one of this id. Refuses a second rule for the same, and a day of answers without its key. */
export function keepRule(house: House, doer: Doer, wanted: unknown): RetentionRule | Refusal {
	const given = { ...(wanted as object), id: (wanted as { id?: string }).id || newId(house.now()) };
	const rule = ruleBorder(given);
	if (isRefusal(rule)) return rule;
	if (rule.from === 'date' && rule.key.trim() === '')
		return refuse('key-missing', 'Say under which key the day is answered.', 'key');
	if (rule.by === 'template' && !house.db.prepare('SELECT 1 FROM templates WHERE id = ?').get(rule.of))
		return refuse('no-template', 'There is no such template.', 'of');
	return inTransaction(house.db, () => {
		const rules = retentionRules(house.db);
		const same = rules.find((one) => one.by === rule.by && one.of.toLowerCase() === rule.of.toLowerCase());
		if (same && same.id !== rule.id)
			return refuse('rule-there', `“${same.name}” is for the same already. Change that one.`, 'of');
		const was = rules.find((one) => one.id === rule.id);
		house.db
			.prepare(
				`INSERT INTO retention_rules (id, name, by, of, years, begins, key, year_end, ends)
				 VALUES (@id, @name, @by, @of, @years, @from, @key, @yearEnd, @then)
				 ON CONFLICT (id) DO UPDATE SET name = excluded.name, by = excluded.by, of = excluded.of, years = excluded.years,
				 begins = excluded.begins, key = excluded.key, year_end = excluded.year_end, ends = excluded.ends`
			)
			.run({ ...rule, yearEnd: rule.yearEnd ? 1 : 0 });
		note(house, doer, {
			type: 'SettingsChanged',
			what: `the rule “${rule.name}” of keeping`,
			from: was ? { ...was } : {},
			to: { ...rule }
		});
		askReckoning(house);
		return rule;
	});
}

/** What it was for is kept by the next nearest rule then, or for as long as nobody bins it. */
export function dropRule(house: House, doer: Doer, id: string): { done: true } | Refusal {
	return inTransaction(house.db, () => {
		const was = retentionRules(house.db).find((one) => one.id === id);
		if (!was) return refuse('no-rule', 'There is no such rule any more.');
		house.db.prepare('DELETE FROM retention_rules WHERE id = ?').run(id);
		note(house, doer, { type: 'SettingsChanged', what: `the rule “${was.name}” of keeping`, from: { ...was }, to: {} });
		askReckoning(house);
		return { done: true as const };
	});
}

function askReckoning(house: House): void {
	queue(house, 'keeping', `reckon:${newId(new Date())}`, { do: 'reckon' });
	house.changes.emit('jobs');
}
