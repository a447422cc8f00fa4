#!/usr/bin/env node
// The front door of every command. Plain JavaScript without packages, since it installs them.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
	cpSync,
	existsSync,
	mkdirSync,
	readdirSync,
	readFileSync,
	renameSync,
	rmSync,
	statSync,
	writeFileSync
} from 'node:fs';
import path from 'node:path';

process.chdir(path.resolve(import.meta.dirname, '..'));
const [command, ...args] = process.argv.slice(2);
const bin = (name) => path.resolve('node_modules/.bin', name);

/** Runs to the end; ends this process with its status when it fails. */
export function must(file, list, env = {}) {
	const { status, error } = spawnSync(file, list, {
		stdio: ['ignore', 'inherit', 'inherit'],
		env: { ...process.env, ...env }
	});
	if (error || status !== 0) {
		console.error(`${path.basename(file)} ${list.join(' ')} failed.`);
		process.exit(status || 1);
	}
}

/** What npm could not do, with what is missing for it, and the end. */
function packagesFailed(status) {
	const missing = ['g++', 'make', 'python3'].filter((program) => spawnSync('which', [program]).status !== 0);
	console.error(
		missing.length > 0
			? `The packages could not be installed: better-sqlite3 is compiled here, and ${missing.join(', ')} is missing. On Debian: apt install build-essential python3`
			: 'The packages could not be installed; what npm said stands above. Is the network, or its mirror, there?'
	);
	process.exit(status || 1);
}

/**
 * Packages as the lock file names them; again only when it has changed.
 * @returns fulfilled when they are whole: what only reads them can begin before, while better-sqlite3 is compiled
 */
function packages() {
	const lock = createHash('sha256').update(readFileSync('package-lock.json')).digest('hex');
	const stamp = 'node_modules/.pellum-lock';
	if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return Promise.resolve();
	console.error('Installing packages; better-sqlite3 is compiled on the way, which takes a minute or two …');
	const quiet = ['--no-audit', '--no-fund', '--loglevel=error'];
	const { status } = spawnSync('npm', ['ci', '--ignore-scripts', ...quiet], { stdio: 'inherit' });
	if (status !== 0) packagesFailed(status);
	return new Promise((whole) => {
		const compiling = spawn('npm', ['rebuild', ...quiet], { stdio: ['ignore', 'ignore', 'inherit'] });
		compiling.on('error', () => packagesFailed(1));
		compiling.on('close', (failed) => {
			if (failed !== 0) packagesFailed(failed);
			writeFileSync(stamp, lock);
			whole();
		});
	});
}

/** Debian packages that tests and pictures need, by the program each brings. */
function ensurePrograms(wanted) {
	const missing = Object.entries(wanted)
		.filter(([program]) => spawnSync('which', [program]).status !== 0)
		.map(([, name]) => name);
	if (missing.length === 0) return;
	console.error(`Installing ${missing.join(', ')} …`);
	const sudo = process.getuid() === 0 ? [] : ['sudo'];
	const apt = (...list) => must('/usr/bin/env', [...sudo, 'DEBIAN_FRONTEND=noninteractive', 'apt-get', ...list]);
	apt('-qq', 'update');
	apt('-qq', 'install', '-y', '--no-install-recommends', ...missing);
}
// without the parts that only a screen needs: it asks for half as much of the processors
const BROWSER = { 'chromium-headless-shell': 'chromium-headless-shell' };
const JUDGES = { pdfsig: 'poppler-utils', qpdf: 'qpdf', certutil: 'libnss3-tools', openssl: 'openssl' };

/** A digest of names, sizes and times of all that goes into the build. */
function sourceState() {
	const hash = createHash('sha256');
	const walk = (place) => {
		if (!existsSync(place)) return;
		const stat = statSync(place);
		if (stat.isDirectory()) for (const name of readdirSync(place).sort()) walk(path.join(place, name));
		else if (!place.endsWith('.test.ts')) hash.update(`${place} ${stat.size} ${stat.mtimeMs}\n`);
	};
	[
		'src',
		'static/pellum.svg',
		'package-lock.json',
		'svelte.config.js',
		'vite.config.ts',
		'vite.press.config.ts'
	].forEach(walk);
	return hash.digest('hex');
}

function ensurePdfjs() {
	for (const part of ['cmaps', 'standard_fonts', 'wasm'])
		cpSync(`node_modules/pdfjs-dist/${part}`, `static/pdfjs/${part}`, { recursive: true });
}

function buildPress() {
	must(bin('vite'), ['build', '--config', 'vite.press.config.ts', '--logLevel', 'warn']);
}

/** The built server; again only when the source has changed. */
function ensureBuild() {
	const state = sourceState();
	const stamp = 'dist/.source';
	if (existsSync('build/index.js') && existsSync(stamp) && readFileSync(stamp, 'utf8') === state) return;
	console.error('Building …');
	ensurePdfjs();
	// side by side: each of them leaves a processor idle half of the time
	const both =
		'"$0" build --config vite.press.config.ts --logLevel warn & press=$!; "$0" build --logLevel error && wait $press';
	must('/bin/sh', ['-c', both, bin('vite')]);
	writeFileSync(stamp, state);
}

/** Runs a TypeScript file of ours with these arguments; its status is ours. */
function script(file, list, env = {}) {
	const { status } = spawnSync(process.execPath, ['--import', 'tsx', file, ...list], {
		stdio: 'inherit',
		env: { ...process.env, ...env }
	});
	process.exitCode = status ?? 1;
	return process.exitCode;
}

function demoEnv() {
	const port = process.env.PORT ?? '5180';
	return {
		...DIRECTORY(Number(port) + 1),
		PORT: port,
		PELLUM_DEMO: '1',
		PELLUM_DATA: path.resolve(process.env.PELLUM_DATA ?? 'data/demo'),
		ORIGIN: process.env.ORIGIN ?? `http://127.0.0.1:${port}`
	};
}

/** The directory's stand-in, as demo/directory.ts has it. */
const DIRECTORY = (port) => ({
	PELLUM_DIRECTORY: `http://127.0.0.1:${port}`,
	PELLUM_DIRECTORY_CLIENT: 'pellum',
	PELLUM_DIRECTORY_SECRET: 'published-and-worthless',
	PELLUM_DIRECTORY_NAME: 'the directory (stand-in)',
	PELLUM_DIRECTORY_LEVELS: 'groups:agreements-owners=owner,groups:company-office=preparer'
});

/** Runs the directory's stand-in beside the demo; without it people sign in by password. */
function serveDirectory(env) {
	const port = String(Number(env.PORT) + 1);
	const child = spawn(process.execPath, ['--import', 'tsx', 'scripts/directory.ts', port, env.ORIGIN], {
		stdio: ['ignore', 'ignore', 'inherit']
	});
	process.on('exit', () => child.kill());
}

/** Makes the demo's data beside its place and moves it there when it is whole. */
function ensureDemo(env, fresh) {
	const folder = env.PELLUM_DATA;
	if (fresh) rmSync(folder, { recursive: true, force: true });
	if (existsSync(path.join(folder, 'pellum.db'))) return;
	const making = `${folder}.making`;
	rmSync(making, { recursive: true, force: true });
	console.error('Making the demo data …');
	if (script('demo/seed.ts', [], { ...env, PELLUM_DATA: making }) !== 0) process.exit(1);
	mkdirSync(path.dirname(folder), { recursive: true });
	rmSync(folder, { recursive: true, force: true });
	renameSync(making, folder);
}

function serve(env) {
	const child = spawn(process.execPath, ['scripts/serve.mjs'], {
		stdio: 'inherit',
		// each thread's own heap would keep what large files took (mallopt(3), M_ARENA_MAX)
		env: { HOST: '127.0.0.1', SHUTDOWN_TIMEOUT: '2', MALLOC_ARENA_MAX: '2', ...process.env, ...env }
	});
	for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
	child.on('exit', (code) => process.exit(code ?? 0));
}

const folder = () =>
	path.resolve(process.env.PELLUM_DATA ?? (existsSync('data/pellum/pellum.db') ? 'data/pellum' : 'data/demo'));

switch (command) {
	case 'demo': {
		await packages();
		ensureBuild();
		const env = demoEnv();
		ensureDemo(env, args.includes('--fresh'));
		console.log(`Pellum, demo: ${env.ORIGIN}\nSign in as odile@brindlevale.example with quince-lantern-orbit`);
		serveDirectory(env);
		serve(env);
		break;
	}
	case 'start': {
		await packages();
		ensureBuild();
		const port = process.env.PORT ?? '5180';
		const env = {
			PORT: port,
			PELLUM_DATA: path.resolve(process.env.PELLUM_DATA ?? 'data/pellum'),
			ORIGIN: process.env.ORIGIN ?? `http://127.0.0.1:${port}`
		};
		console.log(`Pellum: ${env.ORIGIN}`);
		serve(env);
		break;
	}
	case 'dev': {
		await packages();
		ensurePdfjs();
		must(bin('svelte-kit'), ['sync']);
		buildPress();
		const env = demoEnv();
		ensureDemo(env, args.includes('--fresh'));
		const child = spawn(bin('vite'), ['dev', '--port', env.PORT], {
			stdio: 'inherit',
			env: { ...process.env, ...env }
		});
		child.on('exit', (code) => process.exit(code ?? 0));
		break;
	}
	case 'verify':
		await packages();
		script('scripts/verify.ts', args, { PELLUM_DATA: folder() });
		break;
	case 'check-data':
		await packages();
		script('scripts/check-data.ts', args, { PELLUM_DATA: folder() });
		break;
	case 'export':
		await packages();
		script('scripts/export.ts', args, { PELLUM_DATA: folder() });
		break;
	case 'backup':
	case 'restore':
		await packages();
		script(`scripts/${command}.ts`, args, { PELLUM_DATA: folder() });
		break;
	case 'bench':
		await packages();
		ensurePrograms(JUDGES);
		ensureBuild();
		script('bench/index.ts', args);
		break;
	case 'storm':
		await packages();
		ensureBuild();
		script('scripts/storm.ts', args);
		break;
	case 'shots':
		await packages();
		ensurePrograms(BROWSER);
		ensureBuild();
		script('scripts/shots.ts', args);
		break;
	case 'test': {
		const whole = packages();
		ensurePrograms({ ...BROWSER, ...JUDGES });
		await import('./test.mjs').then(({ testAll }) => testAll(ensureBuild, bin, whole));
		break;
	}
	default:
		console.error(`There is no command “${command}”. See README.md.`);
		process.exit(2);
}
