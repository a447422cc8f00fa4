import { spawnSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { Server } from '../e2e/kit/server';

/** A built Pellum with the office's accounts, started on a port and a folder of its own. */
export async function seededServer(): Promise<Server> {
	const server = new Server();
	mkdirSync(server.env['PELLUM_DATA']!, { recursive: true });
	spawnSync(process.execPath, ['--import', 'tsx', 'e2e/kit/seed.ts'], { env: server.env, stdio: 'inherit' });
	return server.start();
}
