import { expect, test } from '@playwright/test';
import { randomInt } from 'node:crypto';
import { field, plan, typed } from './kit/plans';
import { pdf } from './kit/pdfs';
import { Server, session } from './kit/server';

const KILLS = Number(process.env['PELLUM_KILLS'] ?? 8);
const server = new Server();
test.afterAll(() => server.stop());

test(`killed ${KILLS} times in the middle of its work, it loses nothing and sends nothing twice`, async () => {
	await server.seed('accounts').start();
	const cookie = await session(server);
	const call = (at: string, body: unknown, method = 'POST') =>
		fetch(server.origin + at, {
			method,
			headers: { cookie, origin: server.origin, 'content-type': 'application/json' },
			body: body instanceof Uint8Array ? Buffer.from(body) : JSON.stringify(body),
			redirect: 'manual'
		});
	const bytes = await pdf(1);
	/** what the server has said yes to: it must hold, whatever happens after */
	const promised = { sent: new Set<string>(), finished: new Set<string>() };

	const draft = async () => (await call('/bench/new', {})).headers.get('location')!.split('/').pop()!;
	const first = await draft();
	const upload = async () => (await call(`/bench/${first}/papers?name=Hire.pdf`, bytes)).json();
	const taken = await upload();

	async function sendOne() {
		const id = await draft();
		const p = plan([['maren'], ['tamsin', 'kit'], ['ruben:gets a copy']], {
			papers: [{ id: 'paper', name: 'Hire', digest: taken.digest, pages: taken.pages }]
		});
		p.fields.push(field('n', 'name', 'maren'));
		const saved = await (await call(`/bench/${id}/save`, { revision: 1, plan: p }, 'PUT')).json();
		const sent = await call(`/bench/${id}/send`, { revision: saved.revision });
		if (sent.ok) promised.sent.add((await sent.json()).packet);
	}

	const reading = server.reading.bind(server);
	interface Open {
		packet: string;
		person: string;
		text: string;
	}
	/** everybody whose turn it is and who has a message */
	const openTurns = () =>
		reading((db) =>
			db
				.prepare<[], Open>(
					`SELECT q.packet, q.person, (SELECT text FROM mailbox m WHERE m.recipient = q.email AND m.text LIKE '%' || p.reference || '%' ORDER BY id DESC LIMIT 1) AS text
					 FROM packet_people q JOIN packets p ON p.id = q.packet WHERE q.standing IN ('notified', 'opened') ORDER BY random() LIMIT 4`
				)
				.all()
				.filter((row) => row.text !== null)
		);
	async function signOne({ packet, person, text }: Open) {
		const link = `/s/${text.match(/\/s\/([\w-]{43})/)![1]}`;
		if (!(await call(`${link}/consent`, {})).ok) return;
		const answers = { [`${person}-sig`]: typed(person), ...(person === 'maren' && { n: { text: 'Maren' } }) };
		const done = await call(`${link}/finish`, { answers });
		if (done.ok) promised.finished.add(`${packet} ${person}`);
	}

	const round = async () => {
		await Promise.all([sendOne(), sendOne(), upload(), ...openTurns().map(signOne)]);
		await Promise.all([sendOne(), ...openTurns().map(signOne)]);
	};
	// two rounds in peace: something to be lost, however slow the machine
	await round();
	await round();
	for (let kill = 0; kill < KILLS; kill++) {
		// a cut connection is what a killed server looks like from here
		const work = round().catch(() => {});
		await new Promise((go) => setTimeout(go, randomInt(20, 2500)));
		await server.kill();
		await work;
		await server.start();
	}
	// now let it come to rest: sign everything that is open, until nothing is left to do
	for (let i = 0; i < 400; i++) {
		const open = openTurns();
		for (const turn of open) await signOne(turn);
		const left = reading(
			(db) =>
				db
					.prepare<[], { n: number }>(
						"SELECT (SELECT count(*) FROM jobs WHERE done_at IS NULL) + (SELECT count(*) FROM packets WHERE status = 'out') AS n"
					)
					.get()!.n
		);
		if (left === 0) break;
		if (open.length === 0) await new Promise((go) => setTimeout(go, 200));
	}
	await server.kill();

	expect(server.run('scripts/check-data.ts')).toMatchObject({ status: 0, out: expect.stringContaining('Sound.') });
	reading((db) => {
		const packets = db
			.prepare<[], { id: string; status: string; reference: string }>('SELECT id, status, reference FROM packets')
			.all();
		// how much is done between two kills is the machine's affair; that something was is enough
		expect(packets.length).toBeGreaterThan(KILLS / 2);
		expect(packets.filter((p) => p.status !== 'completed')).toEqual([]);
		for (const id of promised.sent) expect(packets.some((p) => p.id === id)).toBe(true);
		const count = (packet: string, type: string, person: string) =>
			db
				.prepare<[string, string, string], { n: number }>(
					"SELECT count(*) AS n FROM events WHERE packet = ? AND json_extract(body, '$.type') = ? AND json_extract(body, '$.person') = ?"
				)
				.get(packet, type, person)!.n;
		for (const key of promised.finished) {
			const [packet, person] = key.split(' ') as [string, string];
			expect(count(packet, 'PersonFinished', person)).toBe(1);
		}
		for (const { reference } of packets) {
			const mail = db
				.prepare<[string], { recipient: string; subject: string }>(
					"SELECT recipient, subject FROM mailbox WHERE text LIKE '%' || ? || '%'"
				)
				.all(reference);
			const got = mail.map((m) => `${m.recipient} ${m.subject}`).sort();
			const want = [
				...['maren', 'tamsin', 'kit'].map((p) => `${p}@post.example To sign: Test`),
				...['maren', 'tamsin', 'kit', 'ruben'].map((p) => `${p}@post.example Done: Test`)
			].sort();
			expect(got, reference).toEqual(want);
		}
	});
});
