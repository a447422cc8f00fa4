export { isInside, judgeAddress, listHosts, listedHosts, lookupOutside } from './address';
export { askOutside, fetchOutside, sendOutside } from './asking';
