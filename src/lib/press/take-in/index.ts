/** A file that comes from outside made a paper: mended, cleaned, read. */
export { glance, LIMITS, readDrawn, takeIn, type TakeInLimits, type TakenIn } from './take-in';
