import { defineConfig } from 'vite';

/** The press worker, built by itself: Node loads no TypeScript worker, and the app's build would wipe its folder. */
export default defineConfig({
	publicDir: false,
	build: {
		ssr: 'src/lib/press/worker.ts',
		outDir: 'dist/press',
		target: 'node20',
		rollupOptions: { output: { entryFileNames: 'worker.js' } }
	}
});
