import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { caseHouse, claim, opened, begin, visitor, entered, state, signs, approves } from '../../../../e2e/kit/cases';
import { idle, ok, realPlan, type TestHouse } from '../../../../e2e/kit/house';
import { field } from '../../../../e2e/kit/plans';
import type { FollowUp } from '../../core/intake';
import { closePool } from '../../press';
import { makeHook } from '../hooks';
import { listHosts } from '../outside';
import { eventsOf } from '../packets/log';
import { newTemplate, putInUse } from '../templates';
import { answersOfCases, handIn, rowsThatFollowed } from '.';

afterAll(() => closePool());

let t: TestHouse;
beforeEach(async () => {
	t = await caseHouse();
});

describe('what follows', () => {
	const then: FollowUp[] = [
		{ id: 'filed', at: { stop: 's0' }, when: 'amount > 10', does: { is: 'file', folder: '' } },
		{ id: 'row', at: 'completed', does: { is: 'row', keys: ['amount'] } },
		{
			id: 'letter',
			at: 'completed',
			does: {
				is: 'letter',
				to: 'claimant',
				subject: 'Paid: {amount}',
				message: 'With thanks.\n\nThe office',
				copies: true
			}
		},
		{ id: 'never', at: 'completed', when: 'amount > 1000', does: { is: 'row', keys: ['amount'] } }
	];
	it('comes once each, in the record, with values and copies: a letter, a row, another template', async () => {
		const next = newTemplate(t.house, t.odile, {
			...(await realPlan(t.house, [['payee']])),
			title: 'Receipt',
			people: [{ id: 'payee', name: '', email: '', role: 'Payee', duty: 'signs' }],
			fields: [
				field('payee-sig', 'signature', 'payee'),
				field('sum', 'number', 'payee', { key: 'amount', rect: { x: 50, y: 600, width: 99, height: 20 } })
			]
		});
		const { template } = ok(putInUse(t.house, t.odile, next.id, next.revision, ''));
		const { id, slug } = await opened({
			then: [
				...then,
				{ id: 'next', at: 'completed', does: { is: 'template', template, people: { payee: 'claimant' } } }
			]
		});
		const { token } = ok(await begin(slug));
		const { packet, to } = ok(handIn(t.house, token, entered('12.4', { visitor: { ...visitor, locale: 'de' } }), ''));
		ok(signs(packet, to!));
		await t.runner.drain();
		approves(packet, 'leader');
		approves(packet, 'odile');
		await t.runner.drain();
		await t.runner.drain();
		const followed = eventsOf(t.house.db, packet).flatMap((event) =>
			event.type === 'FollowedUp' ? [[event.id, event.what]] : []
		);
		expect(followed.sort()).toEqual([
			['filed', 'file'],
			['letter', 'letter'],
			['next', 'template'],
			['row', 'row']
		]);
		expect(rowsThatFollowed(t.house, id, 'row')).toEqual({
			columns: ['packet', 'amount'],
			rows: [[state(packet).reference, '12.4']]
		});
		const letters = t.house.db
			.prepare<[string], { subject: string; text: string; attachments: string }>(
				"SELECT * FROM mailbox WHERE recipient = ? AND subject LIKE 'Paid%'"
			)
			.all(visitor.email);
		expect(letters).toHaveLength(1);
		// the office's own words, and around them and in them the language of whom it goes to
		expect(letters[0]!.subject).toBe('Paid: 12,4');
		expect(letters[0]!.text).toMatch(/^Guten Tag Aurelio Dube,\s+With thanks\./);
		// the receipt has gone to whom the claim was of, with what they had answered filled in
		const receipt = t.house.db.prepare<[], { id: string }>("SELECT id FROM packets WHERE title = 'Receipt'").get()!;
		expect(state(receipt.id).plan.people[0]).toMatchObject(visitor);
		expect(
			t.house.db.prepare<[string], string>('SELECT answers FROM saved_answers WHERE packet = ?').pluck().get(receipt.id)
		).toContain('12.4');
		// a job that comes twice does it once
		t.house.db.prepare("UPDATE jobs SET done_at = NULL WHERE kind = 'follow'").run();
		await t.runner.drain();
		expect(rowsThatFollowed(t.house, id, 'row').rows).toHaveLength(1);
		const all = ok(await answersOfCases(t.house, t.odile, id, 'csv'));
		expect(new TextDecoder().decode(all.bytes)).toContain('12.4');
		expect(ok(await answersOfCases(t.house, t.odile, id, 'xlsx')).bytes.length).toBeGreaterThan(1000);
	});
	it('tells another program the row that goes into a sheet, and of nothing else what was answered', async () => {
		const got: { type: string; data: Record<string, unknown> }[] = [];
		const program = createServer((request, answer) => {
			let body = '';
			request.on('data', (chunk) => (body += chunk));
			request.on('end', () => {
				got.push(JSON.parse(body) as (typeof got)[number]);
				answer.writeHead(204).end();
			});
		});
		await new Promise<void>((listening) => program.listen(0, '127.0.0.1', listening));
		const host = `127.0.0.1:${(program.address() as AddressInfo).port}`;
		const me = { account: t.odile, address: '' };
		listHosts(t.house, me, [host]);
		ok(makeHook(t.house, me, `http://${host}/`, ['packet.followed', 'packet.completed']));
		const { slug } = await opened({ then });
		const { token } = ok(await begin(slug));
		const { packet, to } = ok(handIn(t.house, token, entered(), ''));
		ok(signs(packet, to!));
		approves(packet, 'leader');
		approves(packet, 'odile');
		await idle(t);
		program.close();
		const { reference } = state(packet);
		expect(got.filter(({ data }) => 'row' in data)).toMatchObject([
			{ type: 'packet.followed', data: { packet, reference, row: { packet: reference, amount: '12.4' } } }
		]);
		expect(got.map(({ type }) => type)).toContain('packet.completed');
		expect(got.filter(({ type }) => type === 'packet.followed')).toHaveLength(3);
	});
	it('that can’t be done is said, and leaves a draft', async () => {
		const copy = newTemplate(t.house, t.odile, { ...(await claim()), title: 'Other' });
		const { template } = ok(putInUse(t.house, t.odile, copy.id, copy.revision, ''));
		const { slug } = await opened({
			then: [{ id: 'next', at: { stop: 's0' }, does: { is: 'template', template, people: {} } }]
		});
		const { token } = ok(await begin(slug));
		const { packet, to } = ok(handIn(t.house, token, entered(), ''));
		ok(signs(packet, to!));
		await t.runner.drain();
		await t.runner.drain();
		expect(eventsOf(t.house.db, packet).find((event) => event.type === 'FollowedUp')).toMatchObject({
			what: 'not done',
			about: expect.stringContaining('a draft of “Other” waits')
		});
		expect(t.house.db.prepare('SELECT count(*) AS n FROM drafts').get()).toEqual({ n: 1 });
	});
});
