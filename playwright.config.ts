import { defineConfig } from '@playwright/test';
import { BROWSER } from './e2e/kit/browser';

export default defineConfig({
	testDir: 'e2e',
	testMatch: '*.spec.ts',
	globalSetup: './e2e/kit/setup.ts',
	outputDir: 'test-results/e2e',
	workers: 2,
	timeout: 240_000,
	expect: { timeout: 20_000 },
	retries: 0,
	reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
	use: {
		actionTimeout: 20_000,
		viewport: { width: 1280, height: 800 },
		locale: 'en-GB',
		timezoneId: 'Europe/London',
		launchOptions: BROWSER
	}
});
