export { isInside, judgeAddress, listedHosts, listHosts, lookupOutside } from './address';
export { fetchOutside } from './fetching';
