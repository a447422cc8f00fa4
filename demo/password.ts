/** The password of every account of the demo. Published, hence worthless. */
export const PASSWORD = 'quince-lantern-orbit';
