import { storm, report } from '../bench/storm';

/**
 * npm run storm: ten minutes of everything at once against a built Pellum (`PELLUM_STORM_SECONDS` for another time), and what
 * came of it as a table. Exit 1 when something was lost, came twice, took too long or held too much.
 */
const seconds = Number(process.env['PELLUM_STORM_SECONDS'] ?? 600);
const figures = await storm(seconds, (line) => console.error(line));
console.log(report(figures));
process.exit(figures.every((one) => one.holds) ? 0 : 1);
