import { chromium, type Browser } from '@playwright/test';
import { spawnSync } from 'node:child_process';
import { mkdirSync, rmSync } from 'node:fs';
import { BROWSER } from '../e2e/kit/browser';
import { Server } from '../e2e/kit/server';

/** A built Pellum with the office's accounts, started on a port and a folder of its own. */
export async function seededServer(): Promise<Server> {
	const server = new Server();
	mkdirSync(server.env['PELLUM_DATA']!, { recursive: true });
	spawnSync(process.execPath, ['--import', 'tsx', 'e2e/kit/seed.ts'], { env: server.env, stdio: 'inherit' });
	return server.start();
}

/** The same with a browser beside it; both are gone afterwards, and the folder with them. */
export async function withBrowser<T>(measure: (browser: Browser, server: Server) => Promise<T>): Promise<T> {
	const server = await seededServer();
	const browser = await chromium.launch(BROWSER);
	try {
		return await measure(browser, server);
	} finally {
		await browser.close();
		await server.stop();
		rmSync(server.folder, { recursive: true, force: true });
	}
}
