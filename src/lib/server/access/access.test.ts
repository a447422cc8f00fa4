import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { account, ok, out, paper, realPlan, testHouse, type TestHouse } from '../../../../e2e/kit/house';
import { closePool } from '../../press';
import type { Account, Level } from '../accounts';
import { askedAt, DOORS, passage } from '../doors';
import { keepBlob } from '../blobs';
import { POWERS } from '../../core/access';
import { datesAsCalendar } from '../dates';
import { packetPage } from '../lists';
import { folderNamed, openFolder, setMember } from '../folders';
import { BY_ITSELF } from '../office-record';
import { newDraft } from '../packets/drafts';
import { moveToFolder } from '../packets/office';
import { sendPlan } from '../packets/sending';
import { findPackets, packetsOf } from '../records';
import { describeTemplate, joinAsDraft, listTemplates, newTemplate, putInUse, saveBench } from '../templates';
import { newBatch } from '../batches';
import { csv, stewards } from '../../../../demo/stewards';
import { routeWithoutDoor } from '../../../../scripts/every-route';
import { permitted, thingOf, type Kind } from '.';

afterAll(() => closePool());

/** A number from 0 to below `n`, the same at each run. */
function chance(seed: number): (n: number) => number {
	let state = seed;
	return (n) => {
		state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
		return Math.floor((state / 2_147_483_648) * n);
	};
}

interface Made {
	kind: Kind;
	id: string;
	/** who may see it and who may change it, worked out while it was made */
	see: Set<string>;
	change: Set<string>;
}

/** A house with some of everything, and of each thing who is meant to have it. */
async function randomHouse(seed: number): Promise<{ t: TestHouse; people: Account[]; made: Made[] }> {
	const pick = chance(seed);
	const t = await testHouse();
	const people = [t.odile];
	const levels: Level[] = ['preparer', 'preparer', 'viewer', pick(2) ? 'owner' : 'preparer'];
	for (const [i, level] of levels.entries()) people.push(await account(t.house, `P${i}`, `p${i}@x.example`, level));
	const owners = people.filter((one) => one.level === 'owner');
	const preparers = people.filter((one) => one.level !== 'viewer');
	const ids = (list: Account[]) => new Set([...owners, ...list].map((one) => one.id));
	const any = () => preparers[pick(preparers.length)]!;
	const plan = await realPlan(t.house, [['kit']]);
	const made: Made[] = [];
	for (let i = 0; i < 4; i++) {
		const whose = any();
		const picture = keepBlob(t.house.db, Buffer.from(`picture ${seed} ${i}`), 'image/png', t.house.now());
		const own = { ...plan, attachments: [{ id: 'a', name: 'A', digest: picture }] };
		made.push({ kind: 'draft', id: newDraft(t.house, whose, own).id, see: ids([whose]), change: ids([whose]) });
		made.push({ kind: 'file', id: picture, see: ids([whose]), change: new Set() });
	}
	const asRoles = { ...plan, people: plan.people.map((p) => ({ ...p, role: 'Player', name: '', email: '' })) };
	// closed folders with members by chance, who sees and who prepares in each
	const folders = ['Claims', 'Youth'].map((name) => {
		folderNamed(t.house, BY_ITSELF, name);
		openFolder(t.house, BY_ITSELF, name, false);
		const power = new Map(people.filter(() => pick(2) === 0).map((one) => [one.id, POWERS[pick(3)]!]));
		for (const [id, may] of power) setMember(t.house, BY_ITSELF, name, id, may);
		const able = (least: number) =>
			people.filter(({ id, level }) => {
				const may = power.get(id);
				// a viewer is not made a member who prepares
				if (level === 'viewer') return may === 'sees' && least === 0;
				return may !== undefined && POWERS.indexOf(may) >= least;
			});
		return { name, sees: able(0), prepares: able(1) };
	});
	for (let i = 0; i < 4; i++) {
		const [whose, other] = [any(), any()];
		const shared = (['owner', 'chosen', 'office'] as const)[pick(3)]!;
		const copy = newTemplate(t.house, whose, asRoles, `T${i}`);
		const { template } = ok(putInUse(t.house, whose, copy.id, copy.revision, ''));
		const folder = pick(2) ? folders[pick(2)]! : null;
		t.house.db.prepare('UPDATE templates SET folder = ? WHERE id = ?').run(folder?.name ?? '', template);
		describeTemplate(t.house, whose, template, {
			description: '',
			folder: folder?.name ?? '',
			shared,
			accounts: [other.id]
		});
		const seen =
			shared === 'office'
				? [whose, ...(folder?.prepares ?? preparers)]
				: shared === 'chosen'
					? [whose, other]
					: [whose];
		made.push({ kind: 'template', id: template, see: ids(seen), change: ids([whose]) });
		const batch = ok(await newBatch(t.house, whose, template, 's.csv', csv(stewards().slice(0, 2))));
		made.push({ kind: 'batch', id: batch.id, see: ids([whose]), change: ids([whose]) });
	}
	made.push({ kind: 'packet', id: await out(t, [['kit']]), see: ids(people), change: ids(preparers) });
	made.push({ kind: 'file', id: plan.papers[0]!.digest, see: ids(people), change: new Set() });
	for (const [i, folder] of [...folders, ...folders].entries()) {
		const [whose, part] = [any(), people[pick(people.length)]!];
		const own = keepBlob(t.house.db, Buffer.from(`letterhead ${seed} ${i}`), 'image/png', t.house.now());
		const { packet } = ok(
			sendPlan(t.house, whose, {
				...plan,
				people: plan.people.map((p) => ({ ...p, email: part.email.toUpperCase() })),
				attachments: [{ id: 'a', name: 'A', digest: own }]
			})
		);
		ok(moveToFolder(t.house, t.odile, packet, folder.name));
		const see = ids([...folder.sees, whose, part]);
		made.push({ kind: 'packet', id: packet, see, change: ids([...folder.prepares, whose]) });
		made.push({ kind: 'file', id: own, see, change: new Set() });
	}
	return { t, people, made };
}

describe.each([1, 2, 3])('a house made by chance, %i', (seed) => {
	it('answers each account at each door as the table says', async () => {
		const { t, people, made } = await randomHouse(seed);
		let asked = 0;
		for (const [route, door] of Object.entries(DOORS))
			for (const thing of made.filter(({ kind }) => kind === door.of))
				for (const method of ['GET', 'POST', 'PUT'])
					for (const who of people) {
						const ask = askedAt(route, method, route.includes('[digest]') ? { digest: thing.id } : { id: thing.id })!;
						const got =
							passage(route, method, who, false) === 'open' && permitted(t.house.db, who, ask.doing, ask.kind, ask.id);
						const least = method === 'GET' ? door.look : door.do;
						const level = least === 'preparer' ? who.level !== 'viewer' : least === 'viewer';
						const set = method === 'GET' || door.uses ? thing.see : thing.change;
						expect(got, `${who.level} ${method} ${route} of ${thing.kind}`).toBe(level && set.has(who.id));
						asked += 1;
					}
		expect(asked).toBeGreaterThan(1000);
		const packets = (who: Account) =>
			made.filter(({ kind, see }) => kind === 'packet' && see.has(who.id)).map(({ id }) => id);
		for (const who of people) {
			const listed = packetPage(t.house, who, { list: 'open' }).rows.map(({ id }) => id);
			expect(listed.sort(), who.name).toEqual(packets(who).sort());
			expect(
				findPackets(t.house, who, 'guest musician', 50)
					.map(({ id }) => id)
					.sort()
			).toEqual(listed);
			for (const { id } of people.flatMap((one) => packetsOf(t.house, who, one.email)))
				expect(packets(who)).toContain(id);
			expect(datesAsCalendar(t.house, who).match(/BEGIN:VEVENT/g)).toHaveLength(listed.length);
		}
		for (const who of people.filter((one) => one.level !== 'viewer'))
			expect(
				listTemplates(t.house, who, { show: 'all', most: 50 })
					.map(({ id }) => id)
					.sort()
			).toEqual(
				made
					.filter(({ kind, see }) => kind === 'template' && see.has(who.id))
					.map(({ id }) => id)
					.sort()
			);
	});
});

describe('a digest', () => {
	it('is no key: what is another’s can’t be had by naming it in a plan, or by joining', async () => {
		const t = await testHouse();
		const tamsin = await account(t.house, 'Tamsin', 'tamsin@x.example', 'preparer');
		const ruben = await account(t.house, 'Ruben', 'ruben@x.example', 'preparer');
		const { digest, pages } = await paper(t.house);
		const hers = newDraft(t.house, tamsin, await realPlan(t.house, [['kit']]));
		const his = newDraft(t.house, ruben);
		const wanted = { ...his.plan, papers: [{ id: 'p', name: 'Hers', digest, pages }] };
		expect(saveBench(t.house, ruben, his.id, 1, wanted)).toMatchObject({ code: 'unknown-paper' });
		expect(thingOf(t.house.db, 'file', digest, tamsin)).toEqual({
			is: 'file',
			heldBy: [{ is: 'draft', owner: tamsin.id, working: null }]
		});
		const join = { people: [], stops: [], keys: {}, accepted: [] };
		expect(joinAsDraft(t.house, ruben, { draft: hers.id, templates: [] }, join)).toMatchObject({ code: 'no-draft' });
		// sent, it is the office's
		await out(t, [['kit']]);
		ok(saveBench(t.house, ruben, his.id, 1, wanted));
	});
	it('leads nowhere once nothing holds it', async () => {
		const t = await testHouse();
		const lost = keepBlob(t.house.db, Buffer.from('evidence of somebody'), 'application/pdf', t.house.now());
		expect(permitted(t.house.db, t.odile, 'see', 'file', lost)).toBe(false);
	});
});

describe('a route that nobody has judged', () => {
	it('is found before it is built, by its file alone', () => {
		const folder = mkdtempSync(path.join(tmpdir(), 'pellum-routes-'));
		const doors = readFileSync('src/lib/server/doors.ts', 'utf8');
		expect(routeWithoutDoor('src/routes', doors)).toBeUndefined();
		mkdirSync(path.join(folder, 'secret/[id]'), { recursive: true });
		writeFileSync(path.join(folder, 'secret/[id]/+server.ts'), 'export const GET = () => new Response();');
		expect(routeWithoutDoor(folder, doors)).toBe('/secret/[id]');
		rmSync(folder, { recursive: true });
	});
});

describe('stand-ins', () => {
	it('are the owners’ where this is not the demo: letters to choose a password lie there', () => {
		const viewer: Account = { id: 'v', name: 'V', email: 'v@x.example', level: 'viewer' };
		for (const route of ['/stand-ins', '/stand-ins/mailbox/[id]', '/stand-ins/mailbox/[id]/letter']) {
			expect(passage(route, 'GET', viewer, true)).toBe('open');
			expect(passage(route, 'GET', viewer, false)).toBe('shut');
			expect(passage(route, 'GET', { ...viewer, level: 'owner' }, false)).toBe('open');
		}
	});
});
