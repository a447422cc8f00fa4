import type { Browser, FrameLocator, Page } from '@playwright/test';
import Database from 'better-sqlite3';
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { PASSWORD } from '../../demo/password';

export const SEEDS = 'test-results/seeds';

// runners side by side keep out of each other's ports
let nextPort = 5300 + 300 * Number(process.env['TEST_PARALLEL_INDEX'] ?? 0) + (process.pid % 200);

/** A built Pellum on a port and a data folder of its own. */
export class Server {
	readonly port = nextPort++;
	readonly origin = `http://127.0.0.1:${this.port}`;
	readonly folder = mkdtempSync(path.join(tmpdir(), 'pellum-e2e-'));
	readonly env: NodeJS.ProcessEnv;
	output = '';
	private child: ChildProcess | null = null;

	constructor(more: NodeJS.ProcessEnv = {}) {
		this.env = {
			...process.env,
			PORT: String(this.port),
			HOST: '127.0.0.1',
			ORIGIN: this.origin,
			PELLUM_DEMO: '1',
			PELLUM_PUBLISHED_PASSWORDS: '1',
			PELLUM_DATA: path.join(this.folder, 'data'),
			// the same on every machine, whether it has LibreOffice or not
			PELLUM_OFFICE: '',
			SHUTDOWN_TIMEOUT: '1',
			// as scripts/run.mjs starts it
			MALLOC_ARENA_MAX: '2',
			...more
		};
	}

	/** Fills the folder with accounts, or with the whole demo; both were made once, before the first test. */
	seed(what: 'accounts' | 'demo'): this {
		cpSync(path.resolve(SEEDS, what), this.env['PELLUM_DATA']!, { recursive: true });
		return this;
	}

	async start(): Promise<this> {
		this.child = spawn(process.execPath, ['scripts/serve.mjs'], { env: this.env });
		this.child.stdout!.on('data', (chunk: Buffer) => (this.output += chunk.toString()));
		this.child.stderr!.on('data', (chunk: Buffer) => (this.output += chunk.toString()));
		for (let i = 0; i < 4000; i++) {
			if (this.child.exitCode !== null) break;
			if (
				await fetch(`${this.origin}/logo`).then(
					() => true,
					() => false
				)
			)
				return this;
			await new Promise((go) => setTimeout(go, 50));
		}
		throw new Error(`the server did not start: ${this.output}`);
	}

	/** Ends the process at once, as a power cut would. */
	async kill(): Promise<void> {
		const child = this.child;
		if (!child || child.exitCode !== null || child.signalCode !== null) return;
		const gone = new Promise((done) => child.once('exit', done));
		child.kill('SIGKILL');
		await gone;
	}

	/** Looks into its database. */
	reading<T>(read: (db: Database.Database) => T): T {
		const db = new Database(path.join(this.env['PELLUM_DATA']!, 'pellum.db'), { readonly: true });
		try {
			return read(db);
		} finally {
			db.close();
		}
	}

	/** Changes its database, as time or somebody else would. */
	writing(write: (db: Database.Database) => unknown): void {
		const db = new Database(path.join(this.env['PELLUM_DATA']!, 'pellum.db'));
		try {
			write(db);
		} finally {
			db.close();
		}
	}

	/** Bytes that its process holds now (proc(5), VmRSS). */
	held(): number {
		try {
			const status = readFileSync(`/proc/${this.child!.pid}/status`, 'utf8');
			return Number(/VmRSS:\s+(\d+)/.exec(status)![1]) * 1024;
		} catch {
			return 0;
		}
	}

	async stop(): Promise<void> {
		await this.kill();
		rmSync(this.folder, { recursive: true, force: true });
	}

	/** Runs one of the project's commands on this data; gives its exit code and what it printed. */
	run(file: string, ...args: string[]): { status: number | null; out: string } {
		const { status, stdout, stderr } = spawnSync(process.execPath, ['--import', 'tsx', file, ...args], {
			env: this.env,
			encoding: 'utf8'
		});
		return { status, out: stdout + stderr };
	}
}

export async function signIn(page: Page, server: Server, who = 'odile'): Promise<void> {
	await page.goto(`${server.origin}/sign-in`);
	await ready(page);
	await page.getByLabel('E-mail').fill(`${who}@brindlevale.example`);
	await page.getByLabel('Password').fill(PASSWORD);
	await page.getByRole('button', { name: 'Sign in' }).click();
	// the first page of a server that has just begun may take long on a busy machine
	await page.getByRole('heading', { name: 'Out now' }).waitFor();
	await ready(page);
}

/** Opens the page of a packet that is among the records. */
export async function openRecord(page: Page, server: Server, title: string): Promise<void> {
	// rows are drawn near the view only
	await page.goto(`${server.origin}/records?q=${encodeURIComponent(title)}`);
	await ready(page);
	await page.getByRole('link', { name: title }).first().click();
	await page.waitForURL('**/packets/*');
	await ready(page);
}

/** Waits until the page, or one in a frame, answers to keys and buttons. */
export async function ready(page: Page | FrameLocator): Promise<void> {
	await page.locator('html[data-ready=yes]').waitFor({ state: 'attached' });
}

/** A session for plain requests, without a browser. */
export async function session(server: Server, who = 'odile'): Promise<string> {
	const response = await fetch(`${server.origin}/sign-in`, {
		method: 'POST',
		body: new URLSearchParams({ email: `${who}@brindlevale.example`, password: PASSWORD }),
		headers: { origin: server.origin, accept: 'text/html' },
		redirect: 'manual'
	});
	const cookie = response.headers.get('set-cookie')?.match(/pellum_session=([^;]+)/)?.[1];
	if (!cookie) throw new Error(`could not sign in as ${who}: ${response.status}`);
	return `pellum_session=${cookie}`;
}

/** Opens the newest message to an address in the Mailbox and gives the link in it. */
export async function linkFromMail(page: Page, server: Server, to: string, subject = ''): Promise<string> {
	for (let i = 0; i < 40; i++) {
		await page.goto(`${server.origin}/stand-ins?to=${encodeURIComponent(to)}`);
		const first = page.getByRole('row').filter({ hasText: to }).filter({ hasText: subject }).first();
		if ((await first.count()) > 0) {
			await first.getByRole('link').click();
			return server.origin + (await page.getByRole('link', { name: 'Open the link in it' }).getAttribute('href'))!;
		}
		await page.waitForTimeout(250);
	}
	throw new Error(`no message “${subject}” to ${to} came`);
}

export async function phone(browser: Browser): Promise<Page> {
	const context = await browser.newContext({
		viewport: { width: 390, height: 844 },
		hasTouch: true,
		isMobile: true,
		locale: 'en-GB'
	});
	return context.newPage();
}

/** An empty packet on the Bench, of whoever is signed in; signs in as the owner where nobody is. */
export async function emptyBench(page: Page, server: Server): Promise<void> {
	if (page.url() === 'about:blank') await signIn(page, server);
	else await page.goto(`${server.origin}/desk`);
	await ready(page);
	await page.getByRole('button', { name: 'New packet' }).click();
	await page.waitForURL('**/bench/*');
	await ready(page);
}
