export { answersOfMany, copiesAsZip, listOfMany } from './download';
export { file, fileMany, titleFor } from './putting-away';
export { keepingSetting, setKeeping } from './setting';
