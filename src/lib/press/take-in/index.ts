/** A file that comes from outside made a paper: mended, cleaned, compared with what it was, read. */
export type { Compared } from './compare';
export { glance, LIMITS, readDrawn, takeIn, type TakeInLimits, type TakenIn } from './take-in';
