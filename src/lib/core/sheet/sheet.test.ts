import { describe, expect, it } from 'vitest';
import { field, plan } from '../../../../e2e/kit/plans';
import { stewards } from '../../../../demo/stewards';
import { preflight, type Plan } from '../packet';
import { used } from '../template';
import {
	columnKeys,
	filterFault,
	judged,
	matched,
	sheetOf,
	targetsOf,
	type Facts,
	type Setting,
	type Sheet
} from './index';

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
	mapping: matched(sheet.columns, targetsOf(receipt)),
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
			verdicts.flatMap((v, n) => (v.is === 'ready' ? [[sheet.rows[n]![1]!, `k${n}`] as const] : []))
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
		[['Name', 'E-mail', 'Shift'], { 'steward.name': 0, 'steward.email': 1, 'answer.shift': 2 }],
		[['shift', 'Steward', 'email address'], { 'steward.name': 1, 'steward.email': 2, 'answer.shift': 0 }],
		[['Mailing', 'Person', ''], { 'steward.email': 0 }]
	])('%j are matched by their headings', (columns, mapping) =>
		expect(matched(columns, targetsOf(receipt))).toEqual(mapping)
	);
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
	it('are read as a table: no blanks, no empty lines, lines of one length', () => {
		expect(sheetOf([[' A ', 'B', ''], ['1 '], ['', ' '], ['2', '3', '', '4']])).toEqual({
			columns: ['A', 'B', ''],
			rows: [
				['1', '', ''],
				['2', '3', '4']
			]
		});
		expect(sheetOf([])).toEqual({ columns: [], rows: [] });
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
