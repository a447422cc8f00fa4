/** A place that the notary has pointed at, or written: points of the page as it is stored, from the left and from below. */
export interface Point {
	paper: string;
	page: number;
	x: number;
	y: number;
}
