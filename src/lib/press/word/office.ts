import { spawn, spawnSync } from 'node:child_process';
import { accessSync, constants } from 'node:fs';
import { chown, mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';

/** Milliseconds after which it is ended, if it does nothing but wait: on a busy machine it only begins after a minute. */
const TIME = 200_000;
/** Address space in KB that it may take. */
const MEMORY = 3 * 1024 * 1024;
/** Seconds of a processor's time: whatever else goes wrong, it ends some day. */
const WORK = 120;

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

/** Nobody, on every Unix. */
const NOBODY = 65_534;

/**
 * What a program is begun through so that it reaches nothing: a network namespace without any network (unshare(1)), and, where
 * this process may choose, a user who owns nothing. And so that it ends with whoever wanted it: a worker that is ended can't end
 * it any more, so that its processes have a namespace of their own, whose end they don't outlive. Looked up once.
 */
let confining: { through: string[]; asNobody: boolean } | null = null;
function confined(): { through: string[]; asNobody: boolean } {
	const works = (list: string[]) => spawnSync(list[0]!, [...list.slice(1), 'true'], { stdio: 'ignore' }).status === 0;
	const first = (choices: string[][]) => choices.find(works) ?? [];
	if (!confining) {
		const root = process.getuid?.() === 0;
		const mapped = root ? [] : ['-r'];
		const alone = first([
			['setpriv', '--pdeathsig', 'KILL', '--', 'unshare', ...mapped, '-n', '-p', '-f', '--kill-child', '--'],
			['unshare', ...mapped, '-n', '--']
		]);
		const nobody = root
			? first([
					[
						'setpriv',
						`--reuid=${NOBODY}`,
						`--regid=${NOBODY}`,
						'--clear-groups',
						'--no-new-privs',
						'--pdeathsig',
						'KILL',
						'--'
					]
				])
			: [];
		confining = { through: [...alone, ...nobody], asNobody: nobody.length > 0 };
	}
	return confining;
}

/** Where there is no namespace: a proxy that refuses everything, as nothing listens there. */
const NO_PROXY = Object.fromEntries(
	['http_proxy', 'https_proxy', 'ftp_proxy', 'all_proxy'].map((name) => [name, 'http://127.0.0.1:9'])
);

/** Its settings: no macros, no links updated, nothing from addresses that nobody trusts. */
const item = (at: string, name: string, value: string) =>
	`<item oor:path="/org.openoffice.Office.${at}"><prop oor:name="${name}" oor:op="fuse"><value>${value}</value></prop></item>`;
const SETTINGS = `<?xml version="1.0" encoding="UTF-8"?>
<oor:items xmlns:oor="http://openoffice.org/2001/registry" xmlns:xs="http://www.w3.org/2001/XMLSchema" xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance">${[
	item('Common/Security/Scripting', 'DisableMacrosExecution', 'true'),
	item('Common/Security/Scripting', 'MacroSecurityLevel', '3'),
	item('Common/Security/Scripting', 'BlockUntrustedRefererLinks', 'true'),
	item('Common/Security/Scripting', 'DisableActiveContent', 'true'),
	item('Writer/Content/Update', 'Link', '0'),
	item('Writer/Content/Update', 'Field', 'false')
].join('')}</oor:items>`;

/**
 * A Word document made a PDF by LibreOffice, in a folder of its own with a profile of its own, for a minute at most, without a
 * network; null where there is no LibreOffice or it made nothing of it, so that the plain way is gone.
 */
export async function byOffice(bytes: Uint8Array): Promise<Uint8Array | null> {
	const office = officePath();
	if (!office) return null;
	const folder = await mkdtemp(path.join(tmpdir(), 'pellum-office-'));
	try {
		await mkdir(path.join(folder, 'profile/user'), { recursive: true });
		await writeFile(path.join(folder, 'profile/user/registrymodifications.xcu'), SETTINGS);
		await writeFile(path.join(folder, 'in.docx'), bytes);
		if (confined().asNobody)
			for (const place of ['', 'profile', 'profile/user', 'profile/user/registrymodifications.xcu', 'in.docx'])
				await chown(path.join(folder, place), NOBODY, NOBODY);
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
		const command = [...confined().through, office, ...args];
		const child = spawn('/bin/sh', ['-c', `ulimit -v ${MEMORY}; ulimit -t ${WORK}; exec "$0" "$@"`, ...command], {
			cwd: folder,
			env: { PATH: process.env['PATH'] ?? '', HOME: folder, ...NO_PROXY },
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
