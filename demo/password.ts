/** The password of every account of the demo. */
export const PASSWORD = 'brindlevale-demo';
