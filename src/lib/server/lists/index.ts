export { filterChoices, typesIn } from './filters';
export { FITS, fittingTo, packetPage, type ListedPacket } from './packets';
export { keepListSettings, listSettings, settingsIn } from './settings';
