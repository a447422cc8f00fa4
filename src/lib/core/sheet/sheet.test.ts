import { describe, expect, it } from 'vitest';
import { field, plan } from '../../../../e2e/kit/plans';
import { stewards } from '../../../../demo/stewards';
import { preflight, type Plan } from '../packet';
import { isRefusal } from '../refusal';
import { used } from '../template';
import {
	columnKeys,
	filterFault,
	judged,
	matched,
	cellName,
	columnNames,
	sheetOf as read,
	targetsOf,
	type Facts,
	type Setting,
	type Sheet,
	type Went
} from './index';

const sheetOf = (lines: string[][]): Sheet => {
	const sheet = read(lines);
	if (isRefusal(sheet)) throw new Error(sheet.say);
	return sheet;
};

/** The handbook's receipt: a steward signs; the shift is asked of the sender. */
const receipt: Plan = {
	...plan([['steward'], ['odile:gets a copy']], {
		title: 'Steward handbook',
		fields: [
			field('sig', 'signature', 'steward'),
			field('shift', 'number', 'sender', { key: 'shift', label: 'Shift', required: false, settings: { most: '9' } })
		]
	})
};
receipt.people[0] = { ...receipt.people[0]!, role: 'Steward', name: '', email: '' };
const facts: Facts = { own: 'Odile@brindlevale.example', today: '2026-11-25', gone: new Map() };
const setting = (sheet: Sheet, more: Partial<Setting> = {}): Setting => ({
	mapping: matched(sheet, targetsOf(receipt), receipt),
	values: {},
	filter: '',
	without: [],
	chosen: [],
	...more
});

describe('the worked example of a batch', () => {
	const sheet = sheetOf(stewards());
	const chosen = setting(sheet, { filter: 'status = "confirmed"' });
	const verdicts = judged(receipt, sheet, chosen, facts);
	const rows = (is: string) => verdicts.flatMap((v, n) => (v.is === is ? [n] : []));
	it('53 are ready, 5 left out by the filter, 4 faulty with their cell, 1 asks which of two', () => {
		expect([rows('ready').length, rows('left out'), rows('faulty'), rows('twice')]).toEqual([
			53,
			[1, 12, 30, 33, 60],
			[3, 17, 22, 40],
			[8, 51]
		]);
		expect(verdicts[22]).toMatchObject({ column: 1, say: "“tess.post.example” can't be an e-mail address." });
		expect(verdicts[3]).toMatchObject({ column: 1, say: 'Steward: e-mail is missing.' });
		expect(verdicts[8]).toEqual({ is: 'twice', rows: [51] });
	});
	it('the sender’s own is permitted, and marked', () => {
		expect(verdicts.flatMap((v, n) => (v.is === 'ready' && v.own ? [n] : []))).toEqual([45]);
	});
	it('which of two is meant is chosen; the other is left out', () => {
		const after = judged(receipt, sheet, { ...chosen, chosen: [51] }, facts);
		expect([after[51]!.is, after[8]]).toEqual(['ready', { is: 'left out', why: 'another' }]);
		// whatever is chosen, one address gets one
		const both = judged(receipt, sheet, { ...chosen, chosen: [8, 51] }, facts);
		expect(both.filter((v) => v.is === 'ready')).toHaveLength(54);
	});
	it('run twice, the second time none go', () => {
		const gone = new Map(
			verdicts.flatMap((v, n) =>
				v.is === 'ready' ? [[sheet.rows[n]![1]!, { packet: `k${n}`, brought: {} }] as const] : []
			)
		);
		const again = judged(receipt, sheet, chosen, { ...facts, gone });
		expect(again.filter((v) => v.is === 'ready')).toEqual([]);
		expect(again.filter((v) => v.is === 'gone')).toHaveLength(53);
		// a row that is new goes
		const more = { ...sheet, rows: [...sheet.rows, ['New', 'new@post.example', 'confirmed']] };
		expect(judged(receipt, more, chosen, { ...facts, gone }).filter((v) => v.is === 'ready')).toHaveLength(1);
	});
	it('what is ready can go as it is', () => {
		for (const verdict of verdicts)
			if (verdict.is === 'ready')
				expect(preflight(used(receipt, verdict.given)).filter((finding) => !finding.mild)).toEqual([]);
	});
});

describe('columns', () => {
	it.each([
		[['Name', 'E-mail', 'Shift'], { 'steward.name': '0 sure', 'steward.email': '1 sure', 'answer.shift': '2 sure' }],
		[
			['shift', 'Steward', 'email address'],
			{ 'steward.name': '1 sure', 'steward.email': '2 sure', 'answer.shift': '0 sure' }
		],
		[['Mailing', 'Person', 'x'], { 'steward.email': '0 likely' }],
		[['Surname', 'First name', 'Mail (private)'], { 'steward.name': '1+0 sure', 'steward.email': '2 likely' }]
	])('%j are matched by their headings, and how sure that is is told', (columns, mapping) => {
		const sheet = { ...sheetOf([columns, columns.map(() => 'a')]) };
		const said = Object.entries(matched(sheet, targetsOf(receipt), receipt)).map(([id, source]) => [
			id,
			`${source.columns.join('+')} ${source.sure ? 'sure' : 'likely'}`
		]);
		expect(Object.fromEntries(said)).toEqual(mapping);
	});
	it('are matched by what stands in them, by what they meant before, and a name is turned', () => {
		const sheet = sheetOf([
			['Kontakt', 'Wer', 'Dienst'],
			['a@post.example', 'Kowal, Idris', '3'],
			['b@post.example', 'Marlow, Tess', '4']
		]);
		const mapping = matched(sheet, targetsOf(receipt), receipt, { wer: 'steward.name', dienst: 'answer.shift' });
		expect(mapping).toEqual({
			'steward.email': { columns: [0], sure: true },
			'steward.name': { columns: [1], sure: true, turned: true },
			'answer.shift': { columns: [2], sure: true }
		});
		const verdicts = judged(receipt, sheet, setting(sheet, { mapping }), facts);
		expect(verdicts[0]).toMatchObject({ given: { people: { steward: { name: 'Idris Kowal' } } } });
	});
	it('have names in rules, each its own', () => {
		expect(
			columnKeys(
				sheetOf([
					['Start date', 'start-date', '', 'sum'],
					['a', 'b', 'c', 'd']
				])
			)
		).toEqual(['start_date', 'start_date_2', 'column_3', 'sum_1']);
	});
	it('are read as a table: no blanks, no empty lines, lines of one length; where each stands in the file is kept', () => {
		expect(sheetOf([[' A ', 'B', ''], ['1 '], ['', ' '], ['2', '3', '', '4']])).toEqual({
			columns: ['A', 'B', ''],
			rows: [
				['1', '', ''],
				['2', '3', '4']
			],
			heads: 1,
			lines: [2, 4],
			places: [0, 1, 3]
		});
	});
	it('begin below a title and empty lines; two alike are told apart; a table without headings is refused', () => {
		const sheet = sheetOf([['Stewards 2026'], [], ['Name', '', 'Mail', 'mail'], ['Idris', '', 'i@post.example', '']]);
		expect([sheet.heads, sheet.lines, sheet.columns]).toEqual([3, [4], ['Name', 'Mail', 'mail']]);
		expect(columnNames(sheet)).toEqual(['Name', 'Mail (C)', 'mail (D)']);
		expect(cellName(sheet, 0, 1)).toBe('C4');
		expect([
			read([]),
			read([['Name', 'Mail']]),
			read([
				['Idris', 'i@post.example'],
				['Tess', '']
			])
		]).toMatchObject([{ code: 'sheet-empty' }, { code: 'sheet-empty' }, { code: 'sheet-headless' }]);
	});
});

describe('the worked example of a sheet', () => {
	const plan: Plan = {
		...receipt,
		fields: [
			receipt.fields[0]!,
			field('shift', 'choice', 'sender', {
				key: 'shift',
				label: 'Shift',
				settings: {
					options: [
						{ value: 'early', text: 'early' },
						{ value: 'late', text: 'late' }
					]
				}
			})
		]
	};
	const lines = [
		['Surname', 'First name', 'Mail (private)', 'Shift', 'Status'],
		['Kowal', 'Idris', 'i.kowal@post.example', 'early', 'confirmed'],
		['Kowal', 'Idris', 'I.Kowal@post.example', 'late', 'confirmed'],
		['Brandt', 'Ola', 'i.kowal@post', 'early', 'confirmed'],
		['Menon', 'Ravi', 'ravi@post.example', 'dawn', 'confirmed'],
		['Quill', 'Joan', 'joan@post.example', 'late', 'asked'],
		['Farrow', 'Odile', 'odile@brindlevale.example', 'late', 'confirmed'],
		['=HYPERLINK("x")', 'Eve', 'eve@post.example', 'late', 'confirmed']
	];
	const sheet = sheetOf(lines);
	const chosen: Setting = {
		mapping: matched(sheet, targetsOf(plan), plan),
		values: {},
		filter: 'status = "confirmed"',
		without: [],
		chosen: []
	};
	const verdicts = judged(plan, sheet, chosen, facts);
	it('joins a name, tells twins, cells, choices, the filtered and one’s own; formulas are text', () => {
		expect(verdicts).toMatchObject([
			{ is: 'twice', rows: [1] },
			{ is: 'twice', rows: [0] },
			{ is: 'faulty', column: 2, say: "“i.kowal@post” can't be an e-mail address." },
			{ is: 'faulty', column: 3, say: '“dawn” is not among the choices: early, late.' },
			{ is: 'left out', why: 'filter' },
			{ is: 'ready', own: true, given: { people: { steward: { name: 'Odile Farrow' } } } },
			{ is: 'ready', own: false, given: { people: { steward: { name: 'Eve =HYPERLINK("x")' } } } }
		]);
		expect(cellName(sheet, 2, 2)).toBe('C4');
	});
	it('a value is given once for all rows; days, title, language and a private word come from columns', () => {
		const more = sheetOf([
			['Name', 'Mail', 'Days', 'Title', 'Language', 'Private word'],
			['Idris', 'i@post.example', '5', 'Shifts of Idris', 'fr-FR', 'See you'],
			['Tess', 't@post.example', 'soon', '', '', ''],
			['Ola', 'o@post.example', '', '', 'Klingon', '']
		]);
		const all = judged(
			plan,
			more,
			{ ...chosen, filter: '', mapping: matched(more, targetsOf(plan), plan), values: { 'answer.shift': 'late' } },
			facts
		);
		expect(all).toMatchObject([
			{
				is: 'ready',
				given: {
					days: 5,
					title: 'Shifts of Idris',
					answers: { shift: { choice: 'late' } },
					people: { steward: { locale: 'fr-FR', note: 'See you' } }
				}
			},
			{ is: 'faulty', column: 2, say: '“soon” is no number of days from 1 to 730.' },
			{ is: 'faulty', column: 4, say: expect.stringContaining('“Klingon” is not among the choices: en-GB') }
		]);
		expect(all[0]!.is === 'ready' && used(plan, all[0]!.given)).toMatchObject({ days: 5, title: 'Shifts of Idris' });
	});
	it('next week’s sheet: who has had theirs is known, and what has changed is said', () => {
		const brought = { 'steward.name': 'Odile Farrow', 'answer.shift': 'early' };
		const gone = new Map<string, Went>([['odile@brindlevale.example', { packet: 'k', brought }]]);
		const again = judged(plan, sheet, chosen, { ...facts, gone });
		expect(again[5]).toEqual({ is: 'gone', packet: 'k', changed: ['Shift'] });
	});
	it('somebody who may be left out is, when their cells are empty; half of them is a fault', () => {
		const optional: Plan = { ...plan, people: plan.people.map((p, i) => (i === 0 ? { ...p, optional: true } : p)) };
		const two = sheetOf([
			['Name', 'Mail', 'Shift'],
			['', '', 'late'],
			['Idris', '', 'late']
		]);
		const mapping = matched(two, targetsOf(optional), optional);
		expect(judged(optional, two, { ...chosen, filter: '', mapping }, facts)).toMatchObject([
			{ is: 'ready', given: { people: {} } },
			{ is: 'faulty', column: 1, say: 'Steward: e-mail is missing.' }
		]);
	});
});

describe('a filter', () => {
	const sheet = sheetOf([
		['Name', 'Start', 'Nights'],
		['A', '2026-12-01', '3'],
		['B', '2026-12-24', '1'],
		['C', '', '2']
	]);
	it.each([
		['nights >= 2', [true, false, true]],
		['start < "2026-12-10"', null],
		['days(start, today) < 0 and nights > 1', [true, false, false]],
		['contains(name, "B") or empty(start)', [false, true, true]]
	])('%s', (filter, passes) => {
		const fault = filterFault(sheet, filter);
		if (passes === null) return expect(fault).not.toBeNull();
		expect(fault).toBeNull();
		const verdicts = judged(receipt, sheet, setting(sheet, { filter }), facts);
		expect(verdicts.map((v) => v.is !== 'left out')).toEqual(passes);
	});
	it('that is faulty says where, and lets nobody pass', () => {
		expect(filterFault(sheet, 'stat = "x"')).toMatchObject({ code: 'rule-key' });
		expect(
			judged(receipt, sheet, setting(sheet, { filter: 'stat = "x"' }), facts).every((v) => v.is === 'left out')
		).toBe(true);
	});
});

it('answers are read by their kind, and a cell that won’t do is named', () => {
	const sheet = sheetOf([
		['Name', 'E-mail', 'Shift'],
		['A', 'a@post.example', '4'],
		['B', 'b@post.example', 'four'],
		['C', 'c@post.example', '12'],
		['D', 'd@post.example', '']
	]);
	const verdicts = judged(receipt, sheet, setting(sheet, { without: [3] }), facts);
	expect(verdicts.map((v) => v.is)).toEqual(['ready', 'faulty', 'faulty', 'left out']);
	expect(verdicts[0]).toMatchObject({ given: { answers: { shift: { number: '4' } } } });
	expect([verdicts[1], verdicts[2]]).toMatchObject([{ column: 2 }, { column: 2 }]);
});
