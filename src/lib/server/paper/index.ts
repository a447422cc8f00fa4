export { addReturned, bringerOf, handInReturn, officeBringer, takeOut } from './bringing';
export { checkReturn, type PaperJob } from './checking';
export { fetchPaper, fetchPaperToPost } from './fetching';
export { acceptReturn, askReturn, refuseReturn, returnLook, returnPicture } from './judging';
export { paperSetting, setPaper } from './setting';
