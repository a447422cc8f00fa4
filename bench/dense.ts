import { writeFileSync } from 'node:fs';
import { letterLike } from './press';

/** Writes a document of dense pages: `dense.ts FILE PAGES`. */
const [file, pages] = process.argv.slice(2);
writeFileSync(file!, await letterLike(Number(pages)));
