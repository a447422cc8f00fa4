import { startDirectory } from '../demo/directory';

/** Runs the directory's stand-in beside a Pellum: node … directory.ts PORT ORIGIN. */
const [port, origin] = process.argv.slice(2);
await startDirectory(Number(port), origin!).catch((error: Error) => {
	console.error(`The directory's stand-in could not start: ${error.message}`);
	process.exit(1);
});
