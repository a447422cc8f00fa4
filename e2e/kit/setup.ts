import { spawnSync } from 'node:child_process';
import { existsSync, rmSync } from 'node:fs';
import path from 'node:path';
import { SEEDS } from './server';

/** Makes the data that tests start from, once a run; `PELLUM_SEEDS=kept` takes what the run before has made. */
export default function setup(): void {
	if (process.env['PELLUM_SEEDS'] === 'kept' && existsSync(path.resolve(SEEDS, 'demo/pellum.db'))) return;
	rmSync(SEEDS, { recursive: true, force: true });
	for (const [what, script] of [
		['accounts', 'e2e/kit/seed.ts'],
		['demo', 'demo/seed.ts']
	] as const) {
		const env = {
			...process.env,
			PELLUM_OFFICE: '',
			PELLUM_DEMO: '1',
			PELLUM_PUBLISHED_PASSWORDS: '1',
			PELLUM_DATA: path.resolve(SEEDS, what)
		};
		const { status, stderr } = spawnSync(process.execPath, ['--import', 'tsx', script], { env, encoding: 'utf8' });
		if (status !== 0) throw new Error(`${script} failed: ${stderr}`);
	}
}
