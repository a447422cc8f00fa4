/** The server's front: one house a process, opened when first needed, with its job runner. */
import { existsSync } from 'node:fs';
import path from 'node:path';
import { hasAccounts, setUpCode } from './accounts';
import { sweepArriving } from './arriving';
import { backupWhenDue } from './backup';
import { ClockWatch } from './clock-watch';
import { tune } from './db';
import { openHouse, readConfig, unsafe, type House } from './house';
import { JobRunner } from './jobs';
import { checkKeys } from './keys';
import { logOf } from './log';
import { sweepAnswers } from './api';
import { lookForSheets } from './batches';
import { sweepDeliveries } from './hooks';
import { sweepCases } from './intakes';
import { tendKeeping } from './keeping';
import { sweepUnused } from './sweeping';
import { keepRoot } from './roots';

export type { House } from './house';

const log = logOf('pellum');

interface Running {
	house: House;
	runner: JobRunner;
}

// Kept on globalThis so that a reload in development doesn't open the database twice.
const kept = globalThis as unknown as { pellum?: Running };

export function house(): House {
	return running().house;
}

export function running(): Running {
	if (!kept.pellum) {
		const config = readConfig(process.env);
		const opened = openHouse(config);
		const why = unsafe(config, opened.db);
		if (why) throw new Error(why);
		kept.pellum = { house: opened, runner: new JobRunner(opened) };
	}
	return kept.pellum;
}

/** Called once at start: looks that the worker is built, makes or unlocks the keys, starts the jobs. */
export async function start(): Promise<void> {
	const worker = path.resolve(process.env['PELLUM_WORKER'] ?? 'dist/press/worker.js');
	if (!existsSync(worker))
		throw new Error(
			`The press worker is not built: ${worker} is missing. Run “npm start” or “npm run dev”, which build it.`
		);
	const { house: opened, runner } = running();
	checkKeys(opened);
	await sweepArriving(opened);
	runner.start();
	if (!hasAccounts(opened))
		console.log(
			`Nobody has an account yet. Open ${opened.config.origin}/set-up; the set-up code is ${setUpCode(opened)}`
		);
	new ClockWatch(opened).start();
	const hourly = () => {
		tune(opened.db);
		backupWhenDue(opened);
		sweepUnused(opened);
		sweepAnswers(opened);
		sweepDeliveries(opened);
		sweepCases(opened);
		tendKeeping(opened).catch((error: unknown) => log.error(error, 'what is over could not be tended to'));
		keepRoot(opened).catch((error: unknown) => log.error(error, 'the day’s root could not be kept'));
	};
	hourly();
	setInterval(hourly, 3_600_000).unref();
	let looking = false;
	setInterval(() => {
		if (looking) return;
		looking = true;
		lookForSheets(opened)
			.catch((error: unknown) => log.error(error, 'sheets could not be looked for'))
			.finally(() => (looking = false));
	}, 5000).unref();
	const stop = () =>
		void runner.stop().then(() => {
			opened.db.close();
			process.exit(0);
		});
	process.once('SIGTERM', stop);
	process.once('SIGINT', stop);
}
