import { spawnSync } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import { rmSync } from 'node:fs';
import { Server } from '../e2e/kit/server';
import { figure, percentile, type Figure } from './measure';

const VISITORS = 100;

/** Times in ms of all of them at once. */
async function atOnce(ask: (n: number) => Promise<unknown>): Promise<number[]> {
	return Promise.all(
		Array.from({ length: VISITORS }, async (_, n) => {
			const from = performance.now();
			await ask(n);
			return performance.now() - from;
		})
	);
}

/** A hundred visitors come to one intake at the same moment, and begin: beside as many signers who open their page. */
export async function benchVisits(): Promise<Figure[]> {
	const server = new Server({ ADDRESS_HEADER: 'x-forwarded-for' });
	try {
		spawnSync(process.execPath, ['--import', 'tsx', 'demo/seed.ts'], { env: server.env });
		const slug = server.reading((db) => db.prepare<[], string>('SELECT slug FROM intakes LIMIT 1').pluck().get()!);
		const tokens: string[] = [];
		server.writing((db) => {
			const turn = db
				.prepare<[], { packet: string; person: string }>(
					"SELECT packet, person FROM packet_people WHERE standing IN ('notified', 'opened') LIMIT 1"
				)
				.get()!;
			const link = db.prepare('INSERT INTO links (token_hash, packet, person, created_at) VALUES (?, ?, ?, ?)');
			for (let n = 0; n < VISITORS; n++) {
				const token = randomBytes(32).toString('base64url');
				tokens.push(token);
				link.run(createHash('sha256').update(token).digest('hex'), turn.packet, turn.person, new Date().toISOString());
			}
		});
		await server.start();
		const from = (n: number) => ({ 'X-Forwarded-For': `198.51.100.${n}` });
		const get = async (at: string, n: number) => {
			const answer = await fetch(server.origin + at, { headers: from(n) });
			if (!answer.ok) throw new Error(`${at}: ${answer.status}`);
			await answer.text();
		};
		const begin = async (n: number) => {
			const answer = await fetch(`${server.origin}/i/${slug}/begin`, {
				method: 'POST',
				headers: { ...from(n), Origin: server.origin, 'Content-Type': 'application/json' },
				body: JSON.stringify({ language: 'en', website: '' })
			});
			if (!answer.ok) throw new Error(`begin: ${answer.status} ${await answer.text()}`);
		};
		// once, so that neither pays for what is done at the first time
		await Promise.all([get(`/i/${slug}`, 1), get(`/s/${tokens[0]}`, 1)]);
		const [visits, begins, signers]: [number[], number[], number[]] = [[], [], []];
		for (let turn = 0; turn < 3; turn++) {
			signers.push(...(await atOnce((n) => get(`/s/${tokens[n]}`, n))));
			visits.push(...(await atOnce((n) => get(`/i/${slug}`, n))));
			begins.push(...(await atOnce(begin)));
		}
		const bound = { what: 'as many signers opening their page at once', value: percentile(signers, 95) };
		return [
			figure(`an intake’s page, ${VISITORS} visitors at once, p95`, percentile(visits, 95), 'ms', bound, { ratio: 2 }),
			figure(`a case begun, ${VISITORS} at once, p95`, percentile(begins, 95), 'ms', bound, { ratio: 2 })
		];
	} finally {
		await server.stop();
		rmSync(server.folder, { recursive: true, force: true });
	}
}
