export { openFolder, removeFolder, setMember } from './changing';
export { inOrder } from './in-order';
export { closedTo, looker, MAY_SEE_PACKET } from './seeing';
export { folderFault, folderNamed, foldersFor, listFolders, membersOf } from './store';
