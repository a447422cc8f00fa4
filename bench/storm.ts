import type Database from 'better-sqlite3';
import { spawnSync } from 'node:child_process';
import { existsSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import sharp from 'sharp';
import { PDFDocument } from '@cantoo/pdf-lib';
import { Mailhouse } from '../e2e/kit/mailhouse';
import { pdf } from '../e2e/kit/pdfs';
import { field, plan, typed } from '../e2e/kit/plans';
import { Server, session } from '../e2e/kit/server';
import makeSeeds from '../e2e/kit/setup';
import { percentile } from './measure';

/**
 * Everything at once against one server: people who sign, uploads small and large, a batch, a mail server that hangs, two
 * kills, a disk that fills. Afterwards what was promised is counted.
 */
export interface Outcome {
	what: string;
	value: string;
	goal: string;
	holds: boolean;
}

interface Promised {
	sent: Set<string>;
	finished: Set<string>;
}

type Say = (line: string) => void;
const pause = (ms: number) => new Promise((go) => setTimeout(go, ms));
const MB = 1024 * 1024;
const BATCH = 60;

export async function storm(seconds: number, say: Say): Promise<Outcome[]> {
	makeSeeds();
	const mail = await Mailhouse.open();
	const server = new Server({ PELLUM_SMTP: mail.url, PELLUM_MAIL_SECONDS: '3', PELLUM_LOG: 'fatal' });
	const disk = smallDisk(server.folder);
	try {
		await server.seed('accounts').start();
		return await run(server, mail, disk, seconds, say);
	} finally {
		await server.kill();
		disk?.close();
		await server.stop();
		await mail.close();
	}
}

async function run(server: Server, mail: Mailhouse, disk: Disk | null, seconds: number, say: Say): Promise<Outcome[]> {
	const cookie = await session(server);
	const call = (at: string, body: unknown, method = 'POST') =>
		fetch(server.origin + at, {
			method,
			headers: {
				cookie,
				origin: server.origin,
				'content-type': body === '' ? 'application/x-www-form-urlencoded' : 'application/json'
			},
			body: body instanceof Uint8Array ? Buffer.from(body) : body === '' ? '' : JSON.stringify(body),
			redirect: 'manual'
		});
	const sheet = (at: string, csv: string) => {
		const body = new FormData();
		body.set('sheet', new File([csv], 'stewards.csv'));
		return fetch(server.origin + at, {
			method: 'POST',
			headers: { cookie, origin: server.origin },
			body,
			redirect: 'manual'
		});
	};
	const small = await pdf(1);
	const large = await heavyPdf(48);
	const promised: Promised = { sent: new Set(), finished: new Set() };
	const signing: number[] = [];
	const uploads = { done: 0, refused: 0 };
	let peak = 0;

	const timed = async (work: Promise<Response>): Promise<Response> => {
		const start = performance.now();
		const response = await work;
		// what was refused for want of a disk or a lock is asked for again by the page
		if (response.status < 500) signing.push(performance.now() - start);
		return response;
	};
	const draftOf = async () => {
		const made = await call('/bench/new', {});
		return made.headers.get('location')!.split('/').pop()!;
	};
	const first = await draftOf();
	const taken = (await (await call(`/bench/${first}/papers?name=Hire.pdf`, small)).json()) as {
		digest: string;
		pages: { width: number; height: number; rotate: 0 }[];
	};
	async function sendOne() {
		const id = await draftOf();
		const p = plan([['maren'], ['tamsin', 'kit'], ['ruben:gets a copy']], {
			papers: [{ id: 'paper', name: 'Hire', digest: taken.digest, pages: taken.pages }]
		});
		p.fields.push(field('n', 'name', 'maren'));
		const saved = (await (await call(`/bench/${id}/save`, { revision: 1, plan: p }, 'PUT')).json()) as {
			revision: number;
		};
		const sent = await call(`/bench/${id}/send`, { revision: saved.revision });
		if (sent.ok) promised.sent.add(((await sent.json()) as { packet: string }).packet);
	}
	async function signOne() {
		const letter = mail.next();
		if (!letter) return void (await pause(100));
		const link = `/s/${letter.token}`;
		const done = async () => {
			if (!(await timed(fetch(server.origin + link))).ok) return false;
			if (!(await timed(call(`${link}/consent`, {}))).ok) return false;
			const answers = {
				[`${letter.person}-sig`]: typed(letter.person),
				...(letter.person === 'maren' && { n: { text: 'Maren' } })
			};
			const response = await timed(call(`${link}/finish`, { answers }));
			if (response.ok) promised.finished.add(letter.token);
			return response.ok || response.status === 410 || response.status === 422;
		};
		if (!(await done().catch(() => false))) mail.again(letter);
	}
	const upload = async (bytes: Uint8Array) => {
		const response = await call(`/bench/${first}/papers?name=${Math.random()}.pdf`, bytes);
		if (response.ok) uploads.done += 1;
		else uploads.refused += 1;
	};

	const end = Date.now() + seconds * 1000;
	const over = () => Date.now() >= end;
	const loop = async (work: () => Promise<unknown>) => {
		while (!over()) await work().catch(() => pause(200));
	};
	const at = (part: number) => pause(seconds * 1000 * part);
	const events = [
		at(0.15).then(() => {
			say('the mail server hangs');
			mail.hang(true);
		}),
		at(0.4).then(() => {
			say('the mail server is well again');
			mail.hang(false);
		}),
		...[0.3, 0.75].map((part) =>
			at(part).then(async () => {
				say('killed');
				await server.kill();
				await server.start();
			})
		),
		at(0.55).then(async () => {
			if (!disk) return;
			say('the disk is full');
			disk.fill();
			await pause(Math.min(20_000, seconds * 100));
			disk.empty();
			say('the disk has room again');
		}),
		at(0.05).then(() =>
			startBatch(call, sheet, taken, draftOf).catch((error: unknown) => say(`batch: ${String(error)}`))
		)
	];
	const watch = setInterval(() => (peak = Math.max(peak, server.held())), 500);
	await Promise.all([
		loop(async () => (await sendOne(), pause(300))),
		...Array.from({ length: 4 }, () => loop(signOne)),
		loop(() => upload(small)),
		loop(async () => {
			await Promise.all(Array.from({ length: 10 }, () => upload(large)));
			await pause(2000);
		}),
		...events
	]);
	say('coming to rest');
	const reading = server.reading.bind(server);
	const left = () =>
		reading((db) => db.prepare<[], { n: number }>('SELECT count(*) AS n FROM jobs WHERE done_at IS NULL').get()!.n);
	for (let i = 0; i < 1200 && (left() > 0 || mail.waiting > 0); i++) {
		const before = mail.waiting;
		await Promise.all(Array.from({ length: 4 }, () => signOne()));
		if (before === 0) await pause(500);
	}
	clearInterval(watch);
	peak = Math.max(peak, server.held());
	const waits = left();
	await server.kill();
	const sound = server.run('scripts/check-data.ts');
	return reading((db) => judged(db, { promised, signing, uploads, peak, sound, waits, mail, disk: disk !== null }));
}

function judged(
	db: Database.Database,
	found: {
		promised: Promised;
		signing: number[];
		uploads: { done: number; refused: number };
		peak: number;
		sound: { status: number | null; out: string };
		waits: number;
		mail: Mailhouse;
		disk: boolean;
	}
): Outcome[] {
	const { promised, signing, uploads, peak, sound, mail } = found;
	const count = (sql: string) => db.prepare<[], { n: number }>(sql).get()!.n;
	const ids = new Set(
		db
			.prepare<[], { id: string }>('SELECT id FROM packets')
			.all()
			.map((one) => one.id)
	);
	const lost = [...promised.sent].filter((id) => !ids.has(id)).length;
	const finishes = count("SELECT count(*) AS n FROM events WHERE json_extract(body, '$.type') = 'PersonFinished'");
	const twice = count(
		`SELECT count(*) AS n FROM (SELECT 1 FROM events WHERE json_extract(body, '$.type') IN ('PersonFinished', 'EvidenceSealed')
		 GROUP BY packet, json_extract(body, '$.type'), json_extract(body, '$.person') HAVING count(*) > 1)`
	);
	const rows = count('SELECT count(*) AS n FROM batch_packets');
	const unsealed = count(
		"SELECT count(*) AS n FROM packets WHERE status = 'completed' AND json_extract(sealed, '$.evidence') IS NULL"
	);
	const p99 = percentile(signing, 99);
	const row = (what: string, value: string, goal: string, holds: boolean): Outcome => ({ what, value, goal, holds });
	return [
		row('packets sent, of which are gone', `${promised.sent.size}, ${lost}`, '0 lost', lost === 0),
		row(
			'parts finished by what people were told, and by the record',
			`${promised.finished.size}, ${finishes}`,
			'no fewer in the record',
			finishes >= promised.finished.size
		),
		row('finished or sealed twice', String(twice), '0 twice', twice === 0),
		row('packets of the batch', String(rows), `${BATCH}, each once`, rows === BATCH),
		row('completed and not sealed', String(unsealed), '0', unsealed === 0),
		row('jobs left', String(found.waits), '0', found.waits === 0),
		row(
			'letters sent; of which the same again after a kill, under the same Message-ID',
			`${mail.got}, ${mail.repeats}`,
			`other repeats 0 (${mail.doubles})`,
			mail.doubles === 0
		),
		row('documents taken in, and refused', `${uploads.done}, ${uploads.refused}`, 'some', uploads.done > 0),
		row('requests of people signing', String(signing.length), 'many', signing.length > 10),
		row('99 of 100 of them under', `${Math.round(p99)} ms`, '500 ms', p99 < 500),
		row('held at the most', `${Math.round(peak / MB)} MB`, '900 MB', peak < 900 * MB),
		row('the disk was full for a while', found.disk ? 'yes' : 'no: no disk of its own could be made here', '', true),
		row('check-data', sound.out.trim().split('\n').at(-1) ?? '', 'Sound.', sound.status === 0)
	];
}

export function report(outcomes: Outcome[]): string {
	return [
		'| what | measured | goal | holds |',
		'| --- | --- | --- | --- |',
		...outcomes.map((one) => `| ${one.what} | ${one.value} | ${one.goal} | ${one.holds ? 'yes' : '**no**'} |`)
	].join('\n');
}

/** Sixty stewards from a sheet. */
async function startBatch(
	call: (at: string, body: unknown, method?: string) => Promise<Response>,
	sheet: (at: string, csv: string) => Promise<Response>,
	taken: { digest: string; pages: { width: number; height: number; rotate: 0 }[] },
	draftOf: () => Promise<string>
): Promise<void> {
	const place = (response: Response) => response.headers.get('location')!.split('/').pop()!;
	const p = plan([['steward']], {
		title: 'Steward',
		papers: [{ id: 'paper', name: 'Hire', digest: taken.digest, pages: taken.pages }]
	});
	p.people = p.people.map((one) => ({ ...one, role: 'Steward', name: '', email: '' }));
	const id = await draftOf();
	await call(`/bench/${id}/save`, { revision: 1, plan: p }, 'PUT');
	const working = place(await call(`/bench/${id}/template`, {}));
	const used = await call(`/bench/${working}/in-use`, { revision: 1, note: '' });
	const { template } = (await used.json()) as { template: string };
	const rows = Array.from({ length: BATCH }, (_, n) => `Steward ${n},s${n}@post.example`);
	const batch = place(await sheet(`/templates/${template}/sheet`, ['Steward name,Steward email', ...rows].join('\n')));
	await call(`/batches/${batch}?/run`, '', 'POST');
}

/** A PDF of photographs, so many MB. */
export async function heavyPdf(megabytes: number): Promise<Uint8Array> {
	const document = await PDFDocument.create();
	let size = 0;
	for (let i = 0; size < (megabytes - 4) * MB; i++) {
		const noise = await sharp({
			create: {
				width: 2400,
				height: 1800,
				channels: 3,
				background: '#888',
				noise: { type: 'gaussian', mean: 128, sigma: 60 }
			}
		})
			.jpeg({ quality: 95 })
			.toBuffer();
		size += noise.length;
		const picture = await document.embedJpg(noise);
		document.addPage([595, 842]).drawImage(picture, { x: 40, y: 200, width: 515, height: 386 });
	}
	return document.save();
}

interface Disk {
	fill(): void;
	empty(): void;
	close(): void;
}

/** A disk of its own for the data, where one may be made (a tmpfs needs the right to mount). */
function smallDisk(folder: string): Disk | null {
	const data = path.join(folder, 'data');
	spawnSync('mkdir', ['-p', data]);
	if (spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=3g,mode=700', 'tmpfs', data]).status !== 0) return null;
	const ballast = path.join(data, 'ballast');
	return {
		fill: () => {
			const { bavail, bsize } = statfsSync(data);
			const room = bavail * bsize;
			spawnSync('fallocate', ['-l', String(room), ballast]);
			if (!existsSync(ballast)) writeFileSync(ballast, Buffer.alloc(room));
		},
		empty: () => rmSync(ballast, { force: true }),
		close: () => void spawnSync('umount', [data])
	};
}
