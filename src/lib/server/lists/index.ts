export { filterChoices } from './filters';
export { packetPage, type PacketPage } from './packets';
export { keepListSettings, listSettings, settingsIn } from './settings';
