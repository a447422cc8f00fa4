import { spawn } from 'node:child_process';
import { accessSync, constants } from 'node:fs';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';

const TIME = 60_000;
/** Address space in KB that it may take. */
const MEMORY = 3 * 1024 * 1024;

/** Where LibreOffice is: as `PELLUM_OFFICE` says, else on the PATH; null where the machine has none. */
function officePath(): string | null {
	const given = process.env['PELLUM_OFFICE'];
	const places =
		given !== undefined
			? [given]
			: (process.env['PATH'] ?? '')
					.split(path.delimiter)
					.flatMap((folder) => [path.join(folder, 'soffice'), path.join(folder, 'libreoffice')]);
	return places.find(isProgram) ?? null;
}

function isProgram(file: string): boolean {
	try {
		accessSync(file, constants.X_OK);
		return path.isAbsolute(file);
	} catch {
		return false;
	}
}

/**
 * A Word document made a PDF by LibreOffice, in a folder of its own with a profile of its own, for a minute at most; null
 * where there is no LibreOffice or it made nothing of it, so that the plain way is gone.
 */
export async function byOffice(bytes: Uint8Array): Promise<Uint8Array | null> {
	const office = officePath();
	if (!office) return null;
	const folder = await mkdtemp(path.join(tmpdir(), 'pellum-office-'));
	try {
		await writeFile(path.join(folder, 'in.docx'), bytes);
		const done = await ran(office, folder);
		return done ? new Uint8Array(await readFile(path.join(folder, 'in.pdf'))) : null;
	} catch {
		return null;
	} finally {
		await rm(folder, { recursive: true, force: true });
	}
}

function ran(office: string, folder: string): Promise<boolean> {
	const args = [
		`-env:UserInstallation=file://${folder}/profile`,
		'--headless',
		'--norestore',
		'--convert-to',
		'pdf',
		'--outdir',
		folder,
		path.join(folder, 'in.docx')
	];
	return new Promise((resolve) => {
		// its own group, so that whatever it starts is ended with it; the shell only sets the bound
		const child = spawn('/bin/sh', ['-c', `ulimit -v ${MEMORY}; exec "$0" "$@"`, office, ...args], {
			cwd: folder,
			env: { PATH: process.env['PATH'] ?? '', HOME: folder },
			stdio: 'ignore',
			detached: true
		});
		const timer = setTimeout(() => {
			if (child.pid) process.kill(-child.pid, 'SIGKILL');
		}, TIME);
		child.once('error', () => resolve(false));
		child.once('exit', (code) => {
			clearTimeout(timer);
			resolve(code === 0);
		});
	});
}
