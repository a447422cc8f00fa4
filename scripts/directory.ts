/** Runs the directory's stand-in beside a Pellum: node … directory.ts PORT ORIGIN. */
const [port, origin] = process.argv.slice(2);
// its library warns of what a stand-in is meant to be: kept in memory, for a demo
console.warn = () => {};
const { startDirectory } = await import('../demo/directory');
await startDirectory(Number(port), origin!).catch((error: Error) => {
	console.error(`The directory's stand-in could not start: ${error.message}`);
	process.exit(1);
});
export {};
