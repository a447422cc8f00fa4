import { defineConfig } from '@playwright/test';
import { BROWSER } from './e2e/kit/browser';

export default defineConfig({
	testDir: 'e2e',
	testMatch: '*.spec.ts',
	globalSetup: './e2e/kit/setup.ts',
	outputDir: 'test-results/e2e',
	workers: 2,
	// what hangs ends some day; a machine that is four times slower isn't a fault
	timeout: 900_000,
	expect: { timeout: 120_000 },
	retries: 0,
	reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
	use: {
		actionTimeout: 120_000,
		viewport: { width: 1280, height: 800 },
		locale: 'en-GB',
		// nothing moves but where parts are tried (parts.spec.ts): drawing what moves is a tenth of the work
		contextOptions: { reducedMotion: 'reduce' },
		timezoneId: 'Europe/London',
		launchOptions: BROWSER
	}
});
