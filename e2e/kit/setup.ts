import { spawnSync } from 'node:child_process';
import { rmSync } from 'node:fs';
import path from 'node:path';
import { SEEDS } from './server';

/** Makes the data that tests start from, once a run. */
export default function setup(): void {
	rmSync(SEEDS, { recursive: true, force: true });
	for (const [what, script] of [
		['accounts', 'e2e/kit/seed.ts'],
		['demo', 'demo/seed.ts']
	] as const) {
		const env = { ...process.env, PELLUM_DEMO: '1', PELLUM_DATA: path.resolve(SEEDS, what) };
		const { status, stderr } = spawnSync(process.execPath, ['--import', 'tsx', script], { env, encoding: 'utf8' });
		if (status !== 0) throw new Error(`${script} failed: ${stderr}`);
	}
}
