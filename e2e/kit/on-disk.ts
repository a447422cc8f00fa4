import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach } from 'vitest';
import { openDb } from '../../src/lib/server/db';
import { sent, signs, testHouse, type TestHouse } from './house';

const folders: string[] = [];
afterEach(() => folders.splice(0).forEach((folder) => rmSync(folder, { recursive: true, force: true })));

/** A folder for one test, gone after it. */
export function place(): string {
	const folder = mkdtempSync(path.join(tmpdir(), 'pellum-durable-'));
	folders.push(folder);
	return folder;
}

/** A house on the disk, with a sealed packet in it. */
export async function onDisk(): Promise<{ t: TestHouse; folder: string }> {
	const folder = place();
	const t = await testHouse({ folder }, openDb(folder));
	await sent(t, [['maren']]);
	await t.runner.drain();
	await signs(t, 'maren@post.example');
	return { t, folder };
}
