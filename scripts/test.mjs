// Everything `npm test` does, in the order of what fails soonest. The last line is `N passed, N failed`.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';

export async function testAll(ensureBuild, bin) {
	let passed = 0;
	let failed = 0;
	mkdirSync('test-results', { recursive: true });

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
				else failed += 1;
				console.log(`${said}${status === 0 ? 'ok' : 'FAILED'}: ${name}`);
				done();
			});
		});
	/** Checks one after the other; several such rows run side by side. */
	const inTurn = async (...checks) => {
		for (const one of checks) await check(...one);
	};
	/** A runner that counts for itself, into a JSON file; no file counts as one failure. */
	const suite = (name, file, list, report, read) => {
		rmSync(report, { force: true });
		spawnSync(bin(file), list, { stdio: ['ignore', 'inherit', 'inherit'] });
		const counts = existsSync(report) ? read(JSON.parse(readFileSync(report, 'utf8'))) : [0, 1];
		passed += counts[0];
		failed += counts[1];
		console.log(`${name}: ${counts[0]} passed, ${counts[1]} failed`);
	};

	await check('packages are prepared', 'svelte-kit', ['sync']);
	await Promise.all([
		inTurn(
			['format', 'prettier', ['--check', '--log-level', 'warn', '.']],
			['types', 'svelte-check', ['--threshold', 'warning', '--output', 'human']]
		),
		inTurn(
			['lint', 'eslint', ['.', '--max-warnings', '0']],
			['import rules', 'depcruise', ['src', 'demo', 'scripts', 'bench', '--config', '.dependency-cruiser.cjs']],
			['nothing unused', 'knip', ['--no-progress']]
		)
	]);
	ensureBuild();
	passed += 1;
	suite(
		'unit tests',
		'vitest',
		['run', '--reporter=default', '--reporter=json', '--outputFile.json=test-results/unit.json'],
		'test-results/unit.json',
		(r) => [
			r.numPassedTests,
			r.numFailedTests + (r.numFailedTestSuites > 0 && r.numFailedTests === 0 ? r.numFailedTestSuites : 0)
		]
	);
	suite('end-to-end tests', 'playwright', ['test'], 'test-results/e2e.json', (r) => [
		r.stats.expected,
		r.stats.unexpected + (r.errors.length > 0 && r.stats.unexpected === 0 ? 1 : 0)
	]);
	// by setting only: it takes minutes, and some of its goals depend on the machine
	if (process.env.PELLUM_STORM_SECONDS) await check('the storm', 'tsx', ['scripts/storm.ts']);
	console.log(`${passed} passed, ${failed} failed`);
	process.exit(failed === 0 && passed > 0 ? 0 : 1);
}
