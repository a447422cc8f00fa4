import { chmodSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, expect, it } from 'vitest';
import { docx } from '../../../../demo/word';
import { closePool, wordInWorker } from '..';

const folder = mkdtempSync(path.join(tmpdir(), 'pellum-busy-'));
const busy = path.join(folder, 'busy-office');
afterAll(async () => {
	delete process.env['PELLUM_OFFICE'];
	await closePool();
	rmSync(folder, { recursive: true, force: true });
});

/** Processes that are this program, or were begun by it. */
const running = () =>
	readdirSync('/proc').filter((id) => {
		if (!/^\d+$/.test(id)) return false;
		try {
			return readFileSync(`/proc/${id}/cmdline`, 'utf8').includes(busy);
		} catch {
			return false;
		}
	}).length;
const until = async (is: () => boolean) => {
	for (let i = 0; i < 400 && !is(); i++) await new Promise((go) => setTimeout(go, 50));
	return is();
};

it.runIf(process.platform === 'linux')('a program that was called off does not go on by itself', async () => {
	// as LibreOffice: a script that begins the program proper and waits for it
	writeFileSync(busy, '#!/bin/sh\nif [ "$1" = busy ]; then while :; do sleep 1; done; fi\n"$0" busy &\nwait\n');
	chmodSync(folder, 0o755);
	chmodSync(busy, 0o755);
	// a worker has the environment it was begun with
	await closePool();
	process.env['PELLUM_OFFICE'] = busy;
	const ending = new AbortController();
	const made = wordInWorker(docx(['A letter'], []), 'ask', { signal: ending.signal });
	expect(await until(() => running() >= 2)).toBe(true);
	ending.abort();
	expect(await made).toMatchObject({ code: 'cancelled' });
	expect(await until(() => running() === 0)).toBe(true);
});
