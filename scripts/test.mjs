// Everything `npm test` does, in the order of what fails soonest. The last line is `N passed, N failed`.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';

/** Makes what the browser tests start from beside the unit tests: it waits half of its time. 'kept' when it is there. */
function makeSeeds() {
	rmSync('test-results/seeds', { recursive: true, force: true });
	const making = "import('./e2e/kit/setup.ts').then((setup) => setup.default())";
	const child = spawn(process.execPath, ['--import', 'tsx', '-e', making], { stdio: 'ignore' });
	return new Promise((done) =>
		child.on('error', () => done('')).on('close', (status) => done(status === 0 ? 'kept' : ''))
	);
}

/** @param whole fulfilled when the packages are compiled; what only reads them is checked meanwhile */
export async function testAll(ensureBuild, bin, whole) {
	let passed = 0;
	let failed = 0;
	/** what failed, by name: said once more at the end, where whoever sees only that looks */
	const faults = [];
	mkdirSync('test-results', { recursive: true });
	/** where the time went, for CONTRIBUTING: in seconds */
	const took = [];
	let since = performance.now();
	const lap = (what) => {
		took.push(`${what} ${Math.round((performance.now() - since) / 1000)}`);
		since = performance.now();
	};

	/** A check that is one test: it holds or it does not. What it says is printed when it is done. */
	const check = (name, file, list) =>
		new Promise((done) => {
			const child = spawn(bin(file), list, { stdio: ['ignore', 'pipe', 'pipe'] });
			let said = '';
			child.stdout.on('data', (chunk) => (said += chunk));
			child.stderr.on('data', (chunk) => (said += chunk));
			child.on('error', (error) => (said += error.message));
			child.on('close', (status) => {
				if (status === 0) passed += 1;
				else {
					failed += 1;
					faults.push(name);
				}
				console.log(`${said}${status === 0 ? 'ok' : 'FAILED'}: ${name}`);
				done();
			});
		});
	/** Checks one after the other; several such rows run side by side. */
	const inTurn = async (...checks) => {
		for (const one of checks) await check(...one);
	};
	/** A runner that counts for itself, into a JSON file; no file counts as one failure. */
	const suite = async (name, file, list, report, read) => {
		rmSync(report, { force: true });
		const child = spawn(bin(file), list, { stdio: ['ignore', 'inherit', 'inherit'] });
		await new Promise((done) => child.on('error', done).on('close', done));
		const counts = existsSync(report)
			? read(JSON.parse(readFileSync(report, 'utf8')))
			: [0, 1, [`${name} ended early`]];
		passed += counts[0];
		failed += counts[1];
		faults.push(...counts[2]);
		console.log(`${name}: ${counts[0]} passed, ${counts[1]} failed`);
	};

	await check('packages are prepared', 'svelte-kit', ['sync']);
	await Promise.all([
		inTurn(
			['types', 'svelte-check', ['--threshold', 'warning', '--output', 'human']],
			['import rules', 'depcruise', ['src', 'demo', 'scripts', 'bench', '--config', '.dependency-cruiser.cjs']]
		),
		inTurn(
			['lint', 'eslint', ['.', '--max-warnings', '0']],
			['format', 'prettier', ['--check', '--log-level', 'warn', '.']],
			['nothing unused', 'knip', ['--no-progress']]
		)
	]);
	lap('checks');
	ensureBuild();
	await whole;
	lap('build');
	passed += 1;
	const seeds = makeSeeds();
	await suite(
		'unit tests',
		'vitest',
		['run', '--reporter=default', '--reporter=json', '--outputFile.json=test-results/unit.json'],
		'test-results/unit.json',
		(r) => [
			r.numPassedTests,
			r.numFailedTests + (r.numFailedTestSuites > 0 && r.numFailedTests === 0 ? r.numFailedTestSuites : 0),
			r.testResults.flatMap((file) => [
				...file.assertionResults
					.filter((one) => one.status === 'failed')
					.map(
						(one) => `${path.relative('.', file.name)} › ${one.fullName}: ${one.failureMessages[0]?.split('\n')[0]}`
					),
				...(file.status === 'failed' && file.assertionResults.length === 0 ? [`${file.name}: ${file.message}`] : [])
			])
		]
	);
	lap('unit tests');
	process.env.PELLUM_SEEDS = await seeds;
	await suite('end-to-end tests', 'playwright', ['test'], 'test-results/e2e.json', (r) => [
		r.stats.expected,
		r.stats.unexpected + (r.errors.length > 0 && r.stats.unexpected === 0 ? 1 : 0),
		r.errors.map((error) => error.message)
	]);
	lap('end-to-end tests');
	console.log(`In seconds: ${took.join(', ')}.`);
	// by setting only: it takes minutes, and some of its goals depend on the machine
	if (process.env.PELLUM_STORM_SECONDS) await check('the storm', 'tsx', ['scripts/storm.ts']);
	if (faults.length > 0) console.log(`Failed:\n${faults.join('\n')}`);
	console.log(`${passed} passed, ${failed} failed`);
	process.exit(failed === 0 && passed > 0 ? 0 : 1);
}
